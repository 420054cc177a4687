using CsCheck;
using Mendro.Core.Jobs;

namespace Mendro.Core.Tests.Jobs;

/// <summary>The rules of a job's life, over all its states.</summary>
public class JobLifeTests
{
    private static readonly JobStatus OnBench = new(WorkStage.Find, Shelf.None, JobEnd.Open);

    private static readonly Gen<JobStatus> AnyStatus =
        from stage in Gen.Enum<WorkStage>()
        from shelf in Gen.Enum<Shelf>()
        from closed in Gen.Bool
        from deleted in Gen.Bool
        select closed
            ? new JobStatus(WorkStage.HandOver, Shelf.None, JobEnd.Returned, deleted)
            : new JobStatus(stage, shelf, JobEnd.Open, deleted);

    [Fact]
    public void Whatever_happens_a_live_job_that_is_ready_is_proved() =>
        Gen.Select(AnyStatus, Gen.Enum<JobStep>(), Gen.Bool, Gen.Bool)
            .Sample(
                (status, step, proved, failing) =>
                {
                    var after = JobLife.AfterEvidence(status, step, proved && !failing, failing);
                    if (status.Ending == JobEnd.Open && !status.Deleted && after.Shelf == Shelf.Ready)
                        (proved && !failing).ShouldBeTrue();
                    (after.Ending, after.Deleted).ShouldBe((status.Ending, status.Deleted));
                }
            );

    [Fact]
    public void Deleted_and_brought_back_is_as_it_was() =>
        AnyStatus.Sample(status =>
        {
            if (JobLife.Delete(status) is not { } deleted)
            {
                status.Deleted.ShouldBeTrue();
                return;
            }

            JobLife.BringBack(deleted).ShouldBe(status);
            JobLife.Close(deleted, JobEnd.Parts).ShouldBeNull();
            JobLife.Shelve(deleted, Shelf.SetAside).ShouldBeNull();
            JobLife.TakeDown(deleted).ShouldBeNull();
        });

    [Fact]
    public void A_closed_job_comes_back_to_find()
    {
        var closed = JobLife.Close(OnBench with { Shelf = Shelf.SetAside }, JobEnd.ForSale)!;
        closed.ShouldBe(new JobStatus(WorkStage.HandOver, Shelf.None, JobEnd.ForSale));
        JobLife.Close(closed, JobEnd.Parts).ShouldBeNull();
        JobLife.Shelve(closed, Shelf.WaitingOwner).ShouldBeNull();
        JobLife.Reopen(closed).ShouldBe(OnBench);
        JobLife.Reopen(OnBench).ShouldBeNull();
        JobLife.Close(OnBench, JobEnd.Open).ShouldBeNull();
    }

    // Which stage follows: found by walking a job through the trade's five stages by hand.
    [Theory]
    [InlineData(WorkStage.Intake, JobStep.Looked, false, WorkStage.Find)]
    [InlineData(WorkStage.Fix, JobStep.Looked, true, WorkStage.Fix)]
    [InlineData(WorkStage.Fix, JobStep.FailureFound, true, WorkStage.Fix)]
    [InlineData(WorkStage.Prove, JobStep.FailureFound, true, WorkStage.Find)]
    [InlineData(WorkStage.Prove, JobStep.Repaired, false, WorkStage.Fix)]
    [InlineData(WorkStage.Find, JobStep.Repaired, true, WorkStage.Fix)]
    [InlineData(WorkStage.Fix, JobStep.Proving, false, WorkStage.Prove)]
    [InlineData(WorkStage.Prove, JobStep.Proving, true, WorkStage.Find)]
    [InlineData(WorkStage.Prove, JobStep.Noted, false, WorkStage.Prove)]
    public void The_stage_follows_the_work(WorkStage before, JobStep step, bool failing, WorkStage after) =>
        JobLife.AfterEvidence(OnBench with { Stage = before }, step, false, failing).Stage.ShouldBe(after);

    [Theory]
    [InlineData(WorkStage.Intake, Shelf.None, WorkStage.Find)]
    [InlineData(WorkStage.Fix, Shelf.None, WorkStage.Fix)]
    [InlineData(WorkStage.Prove, Shelf.Ready, WorkStage.HandOver)]
    [InlineData(WorkStage.Fix, Shelf.WaitingPart, WorkStage.Fix)]
    public void The_present_stage_is_where_the_work_is(WorkStage stage, Shelf shelf, WorkStage present) =>
        JobLife.Present(new JobStatus(stage, shelf, JobEnd.Open)).ShouldBe(present);
}

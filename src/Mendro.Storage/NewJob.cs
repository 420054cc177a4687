using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>What intake hands over for a new job.</summary>
/// <param name="Job">The job; id, number and owner id are given by the store.</param>
/// <param name="OwnerName">Owner's name, or null for shop stock. A known name with the same contact is the same owner.</param>
/// <param name="OwnerContact">Owner's phone, mail or address.</param>
/// <param name="Records">Condition marks and the baseline test, in order.</param>
public sealed record NewJob(Job Job, string? OwnerName, string OwnerContact, IReadOnlyList<BenchRecord> Records);

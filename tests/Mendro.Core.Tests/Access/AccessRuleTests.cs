using Mendro.Core.Access;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.Core.Tests.Access;

/// <summary>Codes, passwords, guessing and roles.</summary>
public sealed class AccessRuleTests
{
    private readonly FakeTimeProvider _time = new();

    /// <summary>Crockford's base 32 (published 2019): O is read as 0, I and L as 1, dashes and case do not count.</summary>
    [Theory]
    [InlineData("7Q2M-XK4T-9B0D", "7q2mxk4t9bod")]
    [InlineData("1111-0000-1111", " Ill1 oOo0 iiLL ")]
    public void A_code_is_read_as_it_was_meant(string code, string typed) => OneTimeCode.Mark(typed).ShouldBe(OneTimeCode.Mark(code));

    [Fact]
    public void Codes_have_60_bits_and_no_sign_that_is_mistaken()
    {
        var codes = Enumerable.Range(0, 2000).Select(_ => OneTimeCode.Make()).ToList();
        codes.Distinct().Count().ShouldBe(codes.Count);
        codes.ShouldAllBe(c => c.Length == 14 && c[4] == '-' && c[9] == '-');
        var signs = codes.SelectMany(c => c).Where(c => c != '-').ToHashSet();
        signs.Count.ShouldBe(32);
        signs.ShouldNotContain('I');
        signs.ShouldNotContain('L');
        signs.ShouldNotContain('O');
        signs.ShouldNotContain('U');
    }

    /// <summary>SHA-256 of "abc": FIPS 180-2, appendix B.1.</summary>
    [Fact]
    public void What_is_kept_of_a_secret_is_its_sha256() =>
        OneTimeCode.MarkOf("abc").ShouldBe("BA7816BF8F01CFEA414140DE5DAE2223B00361A396177A9CB410FF61F20015AD");

    [Fact]
    public void A_secret_for_machines_has_256_bits_and_fits_into_an_address()
    {
        var secret = OneTimeCode.MakeSecret();
        secret.Length.ShouldBe(43);
        secret.ShouldAllBe(c => char.IsAsciiLetterOrDigit(c) || c == '-' || c == '_');
    }

    /// <summary>NIST SP 800-63B, 5.1.1.2: length, and nothing that is tried first; no rule of composition.</summary>
    [Theory]
    [InlineData("short", false)]
    [InlineData("ninechars", false)]
    [InlineData("password123", false)]
    [InlineData("PassWord123", false)]
    [InlineData("aaaaaaaaaaaa", false)]
    [InlineData("my name is ilka dorn", false)]
    [InlineData("lower case words only", true)]
    [InlineData("грузовик на мосту", true)]
    public void A_password_is_long_and_none_of_those_tried_first(string password, bool good) =>
        (PasswordRule.Problem(password, "Ilka Dorn") is null).ShouldBe(good);

    [Fact]
    public void A_password_has_an_end() => PasswordRule.Problem(new string('x', 100) + "abcdefghijklmnopqrstuvwxyzabcde", "a").ShouldNotBeNull();

    [Fact]
    public void The_fifth_wrong_password_shuts_a_name_for_a_minute_then_twice_as_long_up_to_a_quarter_of_an_hour()
    {
        var guard = new GuessGuard(_time);
        for (var n = 0; n < 4; n++)
            guard.Wrong("ann", $"10.0.0.{n}");
        guard.Shut("ann", "10.0.0.9").ShouldBe(TimeSpan.Zero);
        foreach (var minutes in (double[])[1, 2, 4, 8, 15, 15])
        {
            guard.Wrong("ANN ", "10.0.0.9");
            guard.Shut("Ann", "10.0.0.77").ShouldBe(TimeSpan.FromMinutes(minutes));
            guard.Shut("bea", "10.0.0.77").ShouldBe(TimeSpan.Zero);
            _time.Advance(TimeSpan.FromMinutes(minutes));
            guard.Shut("ann", "10.0.0.9").ShouldBe(TimeSpan.Zero);
        }

        guard.Right("ann");
        guard.Wrong("ann", "10.0.0.50");
        guard.Shut("ann", "10.0.0.50").ShouldBe(TimeSpan.Zero);
    }

    [Fact]
    public void An_address_that_tries_many_names_is_shut_too_and_a_right_one_between_does_not_help_it()
    {
        var guard = new GuessGuard(_time);
        for (var n = 0; n < 20; n++)
        {
            guard.Shut($"name {n}", "10.0.0.66").ShouldBe(TimeSpan.Zero);
            guard.Wrong($"name {n}", "10.0.0.66");
            guard.Right("its own");
        }

        guard.Shut("another", "10.0.0.66").ShouldBe(TimeSpan.FromMinutes(1));
        guard.Shut("another", "10.0.0.67").ShouldBe(TimeSpan.Zero);
    }

    [Fact]
    public void Each_wrong_answer_is_slower_than_the_one_before_up_to_two_seconds()
    {
        var guard = new GuessGuard(_time);
        var waits = Enumerable.Range(0, 12).Select(_ => guard.Wrong("ann", "10.0.0.1").TotalSeconds).ToList();
        waits.Take(3).ShouldBe([0.25, 0.5, 0.75]);
        waits.ShouldBe(waits.Order());
        waits[^1].ShouldBe(2);
    }

    [Fact]
    public void Forgotten_after_a_day()
    {
        var guard = new GuessGuard(_time);
        for (var n = 0; n < 4; n++)
            guard.Wrong("ann", "10.0.0.1");
        _time.Advance(TimeSpan.FromHours(25));
        guard.Wrong("ann", "10.0.0.1");
        guard.Shut("ann", "10.0.0.1").ShouldBe(TimeSpan.Zero);
    }

    [Theory]
    [InlineData(ShopRole.Owner, new[] { Right.Look, Right.LookAtCosts, Right.Counter, Right.Work, Right.Rule })]
    [InlineData(ShopRole.Technician, new[] { Right.Look, Right.LookAtCosts, Right.Counter, Right.Work })]
    [InlineData(ShopRole.Counter, new[] { Right.Counter })]
    [InlineData(ShopRole.LookerOn, new[] { Right.Look })]
    public void A_role_has_its_rights_and_no_more(ShopRole role, Right[] rights)
    {
        Right[] everybody = [Right.Anyone, Right.Own, Right.LookAtCounter];
        Enum.GetValues<Right>().Where(r => RoleRights.Has(role, r)).ShouldBe(everybody.Concat(rights), ignoreOrder: true);
    }

    [Fact]
    public void Guesses_from_elsewhere_shut_nobody_out_where_they_have_signed_in_before()
    {
        var guard = new GuessGuard(_time);
        for (var n = 0; n < 30; n++)
            guard.Wrong("ann", $"10.9.0.{n}");
        guard.Shut("ann", "10.0.0.5").ShouldBeGreaterThan(TimeSpan.Zero);
        guard.Shut("ann", "10.0.0.5", knownThere: true).ShouldBe(TimeSpan.Zero);
        // That place has a count of its own.
        for (var n = 0; n < 5; n++)
            guard.Wrong("ann", "10.0.0.5", knownThere: true);
        guard.Shut("ann", "10.0.0.5", knownThere: true).ShouldBeGreaterThan(TimeSpan.Zero);
    }

    [Fact]
    public void A_right_one_clears_a_shared_address()
    {
        var guard = new GuessGuard(_time);
        for (var n = 0; n < 19; n++)
            guard.Wrong($"name {n}", "10.0.0.7");
        guard.Right("ann", "10.0.0.7");
        guard.Wrong("bea", "10.0.0.7");
        guard.Shut("cleo", "10.0.0.7").ShouldBe(TimeSpan.Zero);
    }

    [Fact]
    public void A_clock_that_is_set_back_shuts_nobody_out()
    {
        var time = new SetBack();
        var guard = new GuessGuard(time);
        for (var n = 0; n < 5; n++)
            guard.Wrong("ann", "10.0.0.7");
        time.Now -= TimeSpan.FromDays(400);
        time.Ran += TimeSpan.FromMinutes(2);
        guard.Shut("ann", "10.0.0.7").ShouldBe(TimeSpan.Zero);
    }

    // A wall clock that somebody sets, beside the time that the machine has run.
    private sealed class SetBack : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 3, 1, 9, 0, 0, TimeSpan.Zero);

        public TimeSpan Ran { get; set; }

        public override DateTimeOffset GetUtcNow() => Now;

        public override long GetTimestamp() => Ran.Ticks;

        public override long TimestampFrequency => TimeSpan.TicksPerSecond;
    }
}

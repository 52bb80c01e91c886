using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>How somebody can take part in one posture (domain.md 4.6).</summary>
/// <param name="Because">The demands that rule out everything less adapted.</param>
public abstract record ModeChoice(IReadOnlyList<Demand> Because)
{
    /// <summary>A written version asks for nothing this person must not be asked for.</summary>
    public sealed record Fits(Mode Mode, IReadOnlyList<Demand> Because) : ModeChoice(Because);

    /// <summary>No written version fits; one in this mode, still to be written, need not ask for anything
    /// forbidden.</summary>
    public sealed record ToWrite(Mode Mode, IReadOnlyList<Demand> Because) : ModeChoice(Because);

    /// <summary>Nothing fits: the posture is left out, because of these demands.</summary>
    public sealed record NoneFits(IReadOnlyList<Demand> Because) : ModeChoice(Because);

    /// <summary>The least adapted written version that breaks none of the limits, from <paramref name="least"/>
    /// on.</summary>
    public static ModeChoice Of(PostureOutline posture, Side side, IReadOnlyList<Limit> limits, Mode least)
    {
        List<Demand> ruledOut = [];
        Mode? toWrite = null;
        foreach (var mode in Mode.Named.Where(mode => mode.Adapted >= least.Adapted))
        {
            // A version of which nobody has said what it asks for may ask for anything.
            var version = posture.In(mode) is { } written && (written.IsKnown || limits.Count == 0) ? written : null;
            var broken = Broken(
                version is null ? posture.AskedUnwritten(mode, side) : posture.AskedIn(version, side),
                posture.NamedBy,
                side,
                limits,
                version is null ? Mode.Standing : mode
            );
            if (broken.Count > 0)
            {
                ruledOut.AddRange(broken.Except(ruledOut));
            }
            else if (version is not null)
            {
                return new Fits(mode, ruledOut);
            }
            else
            {
                toWrite ??= mode;
            }
        }

        return toWrite is { } wanted ? new ToWrite(wanted, ruledOut) : new NoneFits(ruledOut);
    }

    /// <summary>What a written version asks of somebody that they must not be asked for, or cannot do with the hand
    /// they hold on by (domain.md 4.6).</summary>
    public static IReadOnlyList<Demand> Broken(
        VersionOutline version,
        PostureOutline posture,
        Side side,
        IReadOnlyList<Limit> limits
    ) => Broken(posture.AskedIn(version, side), posture.NamedBy, side, limits, version.Mode);

    private static List<Demand> Broken(
        IReadOnlyList<Demand> demands,
        SideNamedBy namedBy,
        Side side,
        IReadOnlyList<Limit> limits,
        Mode mode
    )
    {
        List<Demand> broken =
        [
            .. limits.Where(limit => limit.IsBrokenBy(demands, namedBy, side)).Select(limit => limit.Demand).Distinct(),
        ];

        // A hand that touches or holds is not available to the posture.
        if (
            mode.Support is Support.Touch or Support.Hold
            && demands.Contains(Demand.BothHandsFree)
            && !broken.Contains(Demand.BothHandsFree)
        )
        {
            broken.Add(Demand.BothHandsFree);
        }

        return broken;
    }
}

/// <summary>Somebody to be covered.</summary>
/// <param name="Least">The least adapted mode they are taught in here.</param>
public sealed record Member(Guid StudentId, Mode Least, IReadOnlyList<Limit> Limits);

/// <summary>What becomes of a posture in a group.</summary>
public enum Verdict
{
    /// <summary>There is a written version for everybody who does it.</summary>
    Taught,

    /// <summary>Somebody needs a version that is not written yet.</summary>
    NeedsVersion,

    /// <summary>Best left out: nothing fits at least half of the group.</summary>
    LeaveOut,
}

/// <param name="Cells">One for each member.</param>
/// <param name="Write">The versions to be written, the least adapted first.</param>
/// <param name="RuledOutBy">For one to be left out, the demands that rule it out.</param>
public sealed record CoverageRow(
    PostureSide Of,
    string Name,
    IReadOnlyList<ModeChoice> Cells,
    Verdict Verdict,
    IReadOnlyList<Mode> Write,
    IReadOnlyList<Demand> RuledOutBy
);

/// <summary>Posture by member, the mode each needs; what is to be written, and what is best left out (domain.md
/// 4.6).</summary>
/// <param name="Summary">The whole table in one line.</param>
public sealed record Coverage(IReadOnlyList<CoverageRow> Rows, string Summary)
{
    /// <param name="mode">What the group works in; every member is covered in it or in something more adapted.</param>
    public static Coverage Of(
        IReadOnlyList<PostureSide> postures,
        IReadOnlyList<Member> members,
        Mode mode,
        IReadOnlyDictionary<Guid, PostureOutline> outlines
    )
    {
        // Most people of a group share the same few limits: each kind of person is worked out once.
        var kinds = members
            .Select(member =>
                (member.Least, Key: string.Join(';', member.Limits.Select(limit => (limit.Demand, limit.Side))))
            )
            .ToList();
        List<CoverageRow> rows = [];
        foreach (var of in postures)
        {
            var outline = outlines[of.PostureId];
            Dictionary<(Mode, string), ModeChoice> choices = [];
            List<ModeChoice> cells = new(members.Count);
            foreach (var (member, kind) in members.Zip(kinds))
            {
                if (!choices.TryGetValue(kind, out var choice))
                {
                    choices[kind] = choice = ModeChoice.Of(
                        outline,
                        of.Side,
                        member.Limits,
                        Mode.MoreAdapted(mode, member.Least)
                    );
                }

                cells.Add(choice);
            }

            rows.Add(Row(of, outline, mode, cells));
        }

        return new(rows, Say(rows, mode));
    }

    private static CoverageRow Row(PostureSide of, PostureOutline outline, Mode mode, List<ModeChoice> cells)
    {
        var none = cells.OfType<ModeChoice.NoneFits>().ToList();
        var write = cells
            .OfType<ModeChoice.ToWrite>()
            .Select(cell => cell.Mode)
            .Concat(outline.In(mode) is null && none.Count < cells.Count ? [mode] : [])
            .Distinct()
            .OrderBy(wanted => wanted.Adapted)
            .ToList();
        var verdict =
            cells.Count > 0 && none.Count * 2 >= cells.Count ? Verdict.LeaveOut
            : write.Count > 0 || outline.In(mode) is null ? Verdict.NeedsVersion
            : Verdict.Taught;
        return new(
            of,
            outline.NameOn(of.Side),
            cells,
            verdict,
            verdict == Verdict.NeedsVersion
                ? write.Count > 0
                    ? write
                    : [mode]
                : [],
            verdict == Verdict.LeaveOut ? [.. none.SelectMany(cell => cell.Because).Distinct()] : []
        );
    }

    private static string Say(List<CoverageRow> rows, Mode mode)
    {
        if (rows.Count == 0)
        {
            return "Nothing is assigned to this group yet.";
        }

        var (write, leave) = (
            rows.Count(row => row.Verdict == Verdict.NeedsVersion),
            rows.Count(row => row.Verdict == Verdict.LeaveOut)
        );
        return $"{rows.Count - write - leave} of {rows.Count} postures can be taught {mode.Name} tonight"
            + (
                write == 0 ? ""
                : write == 1 ? ", 1 needs a version"
                : $", {write} need a version"
            )
            + (leave == 0 ? "." : $", {leave} to leave out.");
    }
}

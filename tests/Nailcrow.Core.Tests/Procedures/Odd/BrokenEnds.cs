namespace Nailcrow.Core.Tests.Procedures;

/// <summary>Something stays open, or the end proves nothing.</summary>
internal static class BrokenEnds
{
    public static IReadOnlyList<Oddity> All => [.. Things, .. Ends];

    private static readonly Oddity[] Things =
    [
        new(
            "the case is never opened",
            "inside-off",
            "    opens: the case\n",
            "    opens: the lid\n",
            "'unplug' pulls a drive while the case is closed; somebody has to open it first ('opens: the case')."
        ),
        new(
            "the cover is opened after the pull",
            "top-hot",
            "  - use: open-up\n  - use: find-bay-inside\n  - use: pull-out\n",
            "  - use: find-bay-inside\n  - use: pull-out\n  - use: open-up\n",
            "'pull' pulls a drive while the cover is closed"
        ),
        new(
            "drawers of big machines stay shut",
            "several",
            "    opens: the drawer\n    when: model.loading is drawer\n",
            "    opens: the drawer\n    when: model.loading is drawer and model.bays is below 60\n",
            "'pull' pulls a drive while the drawer is closed"
        ),
        Oddity.Before(
            "part",
            "- id: panel\n  do: Lift the floor panel.\n  opens: the floor panel",
            "a floor panel is lifted and never laid again",
            "The end is reached with the floor panel not put right."
        ),
        Oddity.Before(
            "bezel-on",
            "- id: twice\n  do: Lift the floor panel.\n  opens: the floor panel\n- id: thrice\n  do: Lift it once more.\n"
                + "  moves: nothing\n  opens: the floor panel\n"
                + "- id: down\n  do: Lay it.\n  moves: nothing\n  closes: the floor panel",
            "one thing is opened twice",
            "'thrice' opens, switches on or slides out the floor panel a second time."
        ),
        Oddity.Before(
            "strap",
            "- id: down\n  do: Lay the floor panel.\n  closes: the floor panel",
            "something is closed that nobody opened",
            "'down' puts the floor panel right, which is not open, on or out here."
        ),
        Oddity.Before(
            "part",
            "- id: room\n  look: Is the room locked?\n  answers: { \"yes\": unlock, \"no\": part }\n- id: unlock\n  do: Unlock the room.\n  opens: the room",
            "a room that was locked is left open",
            "The end is reached with the room not put right."
        ),
        new(
            "the cover goes on where it is screwed only",
            "top-hot",
            "    closes: the cover\n    when: model.loading is top\n",
            "    closes: the cover\n    when: model.loading is top and model.screws is above 0\n",
            "The end is reached with the cover not put right."
        ),
        new(
            "the chassis is slid in before anybody slid it out",
            "top-hot",
            "    opens: the chassis\n",
            "    closes: the chassis\n",
            "which is not open, on or out here."
        ),
        new(
            "a lead takes over with the power off",
            "front-off",
            "    answers: { refused: put-back }\n",
            "    answers: { refused: hand over }\n",
            "The run is handed over with"
        ),
        new(
            "the light is switched on again at the end",
            "front-hot",
            "  - id: light-is-off\n",
            "  - id: blink\n    light: Switch the locator light on.\n    records: light-on\n    when: model.locator is not none\n  - id: light-is-off\n",
            "What stays shut: 'light-is-off'"
        ),
    ];

    private static readonly Oddity[] Ends =
    [
        new(
            "who has put a drive in goes home",
            "front-hot",
            "    answers: { seat-again: again-off, another-part: what-is-wrong }\n    then: nothing-foreign\n",
            "    answers: { seat-again: again-off, another-part: what-is-wrong, late: end }\n    then: nothing-foreign\n",
            "The end is reached without a rebuild seen to start."
        ),
        new("a swap says that nothing comes back", "growth", "comes-back: by-rebuild\n", "comes-back: cannot\n", "brings no new drive in"),
        new(
            "a gate that everybody has passed long ago stands at the end",
            "spare-stepped-in",
            "needs: spare-back",
            "needs: snapshot-before",
            "The end is reached without the new drive seen as spare."
        ),
        Oddity.Before(
            "part",
            "- id: wanted\n  look: Is anybody at home?\n  answers: { \"yes\": part, \"no\": leave }\n- id: leave\n  do: Go home.\n  then: end",
            "nobody is at home, and that is the end",
            "The end is reached without a rebuild seen to start."
        ),
        new(
            "a look at all bays is enough at the end",
            "front-hot",
            "    needs: snapshot-after\n",
            "    needs: seen-again\n",
            "The end is reached without a snapshot from after."
        ),
        new(
            "a plain swap says that the machine releases its drives first",
            "front-hot",
            "comes-back: by-rebuild\n",
            "comes-back: released-first\n",
            "The end is reached without every new drive looked at again."
        ),
        new(
            "a plain swap says that a spare stepped in",
            "front-hot",
            "comes-back: by-rebuild\n",
            "comes-back: spare-stepped-in\n",
            "The end is reached without the new drive seen as spare."
        ),
        new(
            "a plain swap says that nothing is swapped",
            "front-hot",
            "comes-back: by-rebuild\n",
            "comes-back: unchanged\n",
            "brings no new drive in"
        ),
        new(
            "the machine need not see the new drive before the next one goes",
            "several",
            "    needs: new-drive-seen\n",
            "    needs: snapshot-before\n",
            "The next drive is begun before the machine has seen the new one."
        ),
        new(
            "a drive is added and nobody looks whether it is the spare",
            "one-more",
            "needs: spare-back",
            "needs: seen-again",
            "The end is reached without the new drive seen as spare."
        ),
    ];
}

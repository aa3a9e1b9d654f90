namespace Nailcrow.Core.Tests.Procedures;

/// <summary>A pull that loses data, or of a drive somewhere else.</summary>
internal static class BrokenPulls
{
    public static IReadOnlyList<Oddity> All => [.. Leave, .. Place];

    private static readonly Oddity[] Leave =
    [
        new(
            "small machines are not asked whether they rebuild",
            "front-hot",
            "    needs: not-rebuilding\n",
            "    needs: not-rebuilding\n    when: model.bays is above 4\n",
            "'pull' pulls a drive and nobody has seen that the array is not rebuilding."
        ),
        new(
            "only a failed drive is looked at for what its array can spare",
            "front-hot",
            "    needs: pull-not-fatal\n",
            "    needs: pull-not-fatal\n    when: ticket.health is faulted\n",
            "'ask-lead' allows a pull and is reached from elsewhere"
        ),
        new(
            "a person is asked instead of the machine",
            "front-hot",
            "    gate: \"{array} is not rebuilding now.\"\n    needs: not-rebuilding\n    if-not: Wait for the rebuild to end. A pull now can lose the data.\n"
                + "    answers: { ask: ask-lead }\n",
            "    look: Is {array} rebuilding?\n    moves: nothing\n    answers: { \"yes\": not-rebuilding, \"no\": go on }\n",
            "'pull' pulls a drive and nobody has seen that the array is not rebuilding."
        ),
        Oddity.Before(
            "serial-in",
            "- id: second\n  do: Draw the drive of bay {bay} out.\n  records: drawn-out",
            "a second drive comes out while the first bay is empty",
            "'second' pulls a drive while another one is out."
        ),
        Oddity.Before(
            "put-away",
            "- id: second\n  do: Draw the drive of bay {bay} out.\n  records: drawn-out",
            "the same leave is used for a second pull",
            "'second' pulls a drive and nobody has seen that the array is not rebuilding."
        ),
        Oddity.Before(
            "mark-software",
            "- id: lunch\n  hold: Have lunch.\n  seconds: 2700",
            "lunch lies between the look and the pull",
            "pulls a drive"
        ),
        new(
            "the lead's word leads past the marks",
            "front-hot",
            "    with: [asset, array, bay, serial]\n    allows: pull\n",
            "    with: [asset, array, bay, serial]\n    allows: pull\n    then: pull\n",
            "before two marks have said that this is the bay"
        ),
        new(
            "in a hurry nobody asks what can be spared",
            "early",
            "    answers: { ask: ask-lead }\n    when: ticket.job is one of early, growth\n",
            "    answers: { ask: ask-lead, hurry: release }\n    when: ticket.job is one of early, growth\n",
            "'pull' pulls a drive that the array may not be able to spare"
        ),
    ];

    private static readonly Oddity[] Place =
    [
        Oddity.Before(
            "mark-lamp-inside",
            "- id: sure\n  look: Are you sure?\n  answers: { \"yes\": pull, \"no\": go on }",
            "who is sure needs no mark inside",
            "before two marks have said that this is the bay",
            "top-hot"
        ),
        new(
            "after a wrong drive the old marks are taken for good",
            "front-hot",
            "    when: answer.serial-out is different\n    then: mark-software\n",
            "    when: answer.serial-out is different\n    then: pull\n",
            "before two marks have said that this is the bay"
        ),
        new(
            "no mark is left and one pulls all the same",
            "front-hot",
            "    then: counted-together\n",
            "    then: pull\n",
            "before two marks have said that this is the bay"
        ),
        new("every mark is the locator light", "front-hot", "    mark: own serial\n", "    mark: locator light\n", "'light-off'"),
        new(
            "the chassis that blinks is good enough where it has a light",
            "front-hot",
            "    needs: chassis-established\n",
            "    needs: chassis-established\n    when: model.locator is none\n",
            "No path leads to 'light-off'."
        ),
        new(
            "a lost chassis is no reason to stop",
            "front-hot",
            "    with: [asset, chassis-serial, location]\n    then: chassis-light\n",
            "    with: [asset, chassis-serial, location]\n    then: light-off\n",
            "before two marks have said that this is the machine"
        ),
    ];
}

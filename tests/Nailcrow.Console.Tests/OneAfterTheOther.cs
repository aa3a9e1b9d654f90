// Two browsers, two services and two machines at once are too much for two cores.
[assembly: CollectionBehavior(DisableTestParallelization = true)]

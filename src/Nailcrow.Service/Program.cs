using Nailcrow.Service.Admin;
using Nailcrow.Service.Appliances;
using Nailcrow.Service.Appliances.Reaching;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.Host.Seen;
using Nailcrow.Service.Intake;
using Nailcrow.Service.People;
using Nailcrow.Service.Procedures;
using Nailcrow.Service.Rebuilds;
using Nailcrow.Service.Reports;
using Nailcrow.Service.Returns;
using Nailcrow.Service.Returns.Outside;
using Nailcrow.Service.Swaps;
using Nailcrow.Service.Tickets;
using Nailcrow.Service.Tickets.Planning;
using Nailcrow.Store;

if (await ServiceCommands.RunAsync(args) is { } ended)
    return ended;
try
{
    await (await ReadyAsync(args)).RunAsync();
    return 0;
}
catch (Exception e) when (KeptFromStarting.Sentence(e) is { } sentence)
{
    Console.Error.WriteLine(sentence);
    return 1;
}

static async Task<WebApplication> ReadyAsync(string[] args)
{
    // Settings are read once. Whoever would read them anew watches the folder that it was started in, with all that lies beneath.
    string[] words = ["--hostBuilder:reloadConfigOnChange=false", .. args];
    var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = words, WebRootPath = ConsoleFiles.Beside });
    var settings = builder.AddHost();
    StoreRegistration.MakeReadyBeside(settings.Database);
    builder.AddPeople(settings);
    builder.AddAppliances();
    builder.AddIntake(settings);
    builder.AddProcedures(settings);
    builder.AddRebuilds(settings);
    builder.AddOutside();
    builder.AddAdmin(settings);
    builder.AddSeen(settings);

    var app = builder.Build();
    // Neither waits for the other: what the database has to be brought to, and how each call is bound.
    var prepared = Task.Run(() => app.PrepareAsync(settings));
    app.UseHost();
    app.MapIntake();
    app.MapTickets();
    app.MapBring();
    app.MapStores();
    app.MapStoresPapers();
    app.MapSupplies();
    app.MapOutside();
    app.MapWarranties();
    app.MapPlanning();
    app.MapAppliances();
    app.MapReaching();
    app.MapCustomers();
    app.MapDrives();
    app.MapImport();
    app.MapProcedures();
    app.MapSwaps();
    app.MapPhotos();
    app.MapPaper();
    app.MapReports();
    app.MapSigning();
    app.MapDocuments();
    app.MapRebuilds();
    app.MapPeople();
    app.MapAdmin();
    app.MapSeen(settings);
    app.MapHost();
    await Task.WhenAll(prepared, Task.Run(app.MakeReady)); // what keeps the database from being prepared is told first
    return app;
}

using Microsoft.Extensions.Options;
using Nailcrow.Service.Admin;
using Nailcrow.Service.Appliances;
using Nailcrow.Service.Host;
using Nailcrow.Service.Intake;
using Nailcrow.Service.People;
using Nailcrow.Service.Procedures;
using Nailcrow.Service.Rebuilds;
using Nailcrow.Service.Reports;
using Nailcrow.Service.Swaps;
using Nailcrow.Service.Tickets;
using Nailcrow.Service.Tickets.Planning;

if (args is ["restore", ..])
    return RestoreCommand.Run(args);
WireJson.MakeReadyBeside();
var builder = WebApplication.CreateBuilder(new WebApplicationOptions { Args = args, WebRootPath = ConsoleFiles.Beside });
var settings = builder.AddHost();
builder.AddPeople(settings);
builder.AddAppliances();
builder.AddIntake();
builder.AddProcedures(settings);
builder.AddRebuilds(settings);
builder.AddAdmin(settings);

var app = builder.Build();
app.UseHost();
app.MapIntake();
app.MapTickets();
app.MapPlanning();
app.MapAppliances();
app.MapDrives();
app.MapImport();
app.MapProcedures();
app.MapSwaps();
app.MapPhotos();
app.MapPaper();
app.MapReports();
app.MapRebuilds();
app.MapPeople();
app.MapAdmin();
app.MapHost();
try
{
    await app.PrepareAsync(settings);
}
catch (OptionsValidationException wrong)
{
    Console.Error.WriteLine(wrong.Message);
    return 1;
}
await app.RunAsync();
return 0;

// The floor for starting: ASP.NET Core with one route and nothing else.
var app = WebApplication.CreateBuilder(args).Build();
app.MapGet("/health/ready", () => "Healthy");
app.Lifetime.ApplicationStarted.Register(() => Console.WriteLine($"Bare listens at {app.Urls.First()}"));
app.Run();

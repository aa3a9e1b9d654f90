using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Nailcrow.Client.Appliances;
using Nailcrow.Core.Appliances;
using Nailcrow.Core.Appliances.Owners;
using Nailcrow.Core.People;
using Nailcrow.Core.Terms;
using Nailcrow.Service.Host;
using Nailcrow.Service.Host.Answers;
using Nailcrow.Service.People;
using Nailcrow.Store.Appliances;
using Nailcrow.Store.Swaps;

namespace Nailcrow.Service.Appliances;

/// <summary>Who owns the machines: whom to ask there, what was promised, and what was agreed on data and spares.</summary>
internal static class CustomersEndpoints
{
    private const int OnAPage = 100;

    public static void MapCustomers(this WebApplication app)
    {
        var customers = app.MapGroup("/api/customers").WithTags("Appliances");
        customers.MapGet("/", List).WithName("ListCustomers");
        customers.MapGet("/one", Show).WithName("ShowCustomer"); // by a query: a name may have a slash in it
        customers.MapPut("/", Put).WithName("PutCustomer").Takes(Permission.ChangeCustomers);
    }

    internal static async Task<Ok<CustomerPage>> List(ReferenceBook book, CancellationToken ct, string? after = null, string? find = null)
    {
        var found = await book.CustomersAsync(after, string.IsNullOrWhiteSpace(find) ? null : find.Trim(), OnAPage + 1, ct);
        var page = found.Take(OnAPage).Select(c => c.Customer).ToList();
        return TypedResults.Ok(new CustomerPage(page, found.Count > OnAPage ? page[^1].Name : null, page.ConvertAll(c => c.Promised())));
    }

    internal static async Task<Results<Ok<CustomerView>, ProblemHttpResult>> Show(
        string name,
        ReferenceBook book,
        PicturePeriods pictures,
        HttpContext http,
        CancellationToken ct
    )
    {
        if (await ViewAsync(book, pictures, name, ct) is not { } view)
            return Refusals.NotFound($"No customer is called '{Visible.Text(name)}'.");
        http.Response.Headers.ETag = $"\"{view.Version}\"";
        return TypedResults.Ok(view);
    }

    /// <summary>Adds a customer; one that is known is replaced, with <c>If-Match</c> naming what the editor saw.</summary>
    internal static async Task<Results<Ok<CustomerView>, ProblemHttpResult>> Put(
        Sent<Customer> sent,
        ReferenceBook book,
        PicturePeriods pictures,
        ReferenceChanging changing,
        ClaimsPrincipal person,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        CancellationToken ct
    )
    {
        var customer = sent.Message;
        if (customer.Problem() is { } problem)
            return Refusals.Unusable(problem);
        var named = customer with { Name = customer.Name.Trim() };
        if (
            await changing.PutAsync(named, ifMatch?.Trim('"'), person.ToActor().Name, ct)
            && await ViewAsync(book, pictures, named.Name, ct) is { } now
        )
            return TypedResults.Ok(now);
        return TypedResults.Problem(
            ifMatch is null
                ? $"{named.Name} is a customer already. Send If-Match with the version you saw, so that nobody's change is lost."
                : $"{named.Name} was changed by somebody else, or is not known any more; read it again and repeat the change.",
            statusCode: ifMatch is null ? 428 : 412,
            title: ifMatch is null ? "Version needed" : "Changed meanwhile"
        );
    }

    private static async Task<CustomerView?> ViewAsync(ReferenceBook book, PicturePeriods pictures, string name, CancellationToken ct)
    {
        if (await book.CustomerAsync(name.Trim(), ct) is not var (known, sites, machines))
            return null;
        var from = await pictures.BeginAsync(known.Customer, ct);
        return new(
            known.Customer,
            sites,
            machines,
            known.Version,
            from,
            PicturesKept.Told(known.Customer.PicturesKeptMonths, from),
            known.Customer.Promised()
        );
    }
}

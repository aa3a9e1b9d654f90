using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Npgsql;

namespace Nailcrow.Store.Products;

/// <summary>
/// Where a server ended one connection it has mostly ended all, and those that wait in the pool do not know it: each would fail whoever
/// takes it next. Whoever hears of one lets go of all.
/// </summary>
internal sealed class CutLines : DbCommandInterceptor
{
    public static readonly CutLines One = new();

    private CutLines() { }

    public override void CommandFailed(DbCommand command, CommandErrorEventData eventData) =>
        LetGo(command.Connection, eventData.Exception);

    public override Task CommandFailedAsync(
        DbCommand command,
        CommandErrorEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        LetGo(command.Connection, eventData.Exception);
        return Task.CompletedTask;
    }

    public static void LetGo(DbConnection? connection, Exception why)
    {
        if (connection is NpgsqlConnection cut && StorageFaults.IsCut(why))
            NpgsqlConnection.ClearPool(cut);
    }
}

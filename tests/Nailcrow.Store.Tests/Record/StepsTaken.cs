using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using SQLitePCL;

namespace Nailcrow.Store.Tests.Record;

/// <summary>How much a database on a file has to do, in hundreds of steps of its own machine: it is the same on a fast machine and on a slow one.</summary>
internal sealed class StepsTaken : IObserver<DiagnosticListener>, IObserver<KeyValuePair<string, object?>>, IDisposable
{
    private const int AtOnce = 100;

    private readonly string _file;
    private readonly IDisposable _all;
    private IDisposable? _listening;
    private long _taken;

    /// <param name="file">Counted is what is done on connections to it that are opened from now on.</param>
    public StepsTaken(string file)
    {
        _file = file;
        _all = DiagnosticListener.AllListeners.Subscribe(this);
    }

    public long Taken => Interlocked.Read(ref _taken);

    public void OnNext(DiagnosticListener heard)
    {
        if (heard.Name == DbLoggerCategory.Name)
            _listening = heard.Subscribe(this, name => name == RelationalEventId.ConnectionOpened.Name);
    }

    public void OnNext(KeyValuePair<string, object?> opened)
    {
        if (opened.Value is ConnectionEventData { Connection: SqliteConnection connection } && connection.DataSource == _file)
            raw.sqlite3_progress_handler(connection.Handle, AtOnce, _ => (int)(Interlocked.Increment(ref _taken) & 0), null);
    }

    public void OnCompleted() { }

    public void OnError(Exception error) { }

    public void Dispose()
    {
        _listening?.Dispose();
        _all.Dispose();
    }
}

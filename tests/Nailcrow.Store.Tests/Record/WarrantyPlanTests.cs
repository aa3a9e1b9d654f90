using System.Data.Common;
using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Nailcrow.Store.Returns;

namespace Nailcrow.Store.Tests.Record;

/// <summary>A firm knows the warranties of hundreds of thousands of drives: who looks for one reads those that it may be, and no others.</summary>
public sealed class WarrantyPlanTests : IAsyncLifetime
{
    private readonly StoreInUse _store = new();

    // Before the store's first question: one that nobody listens to is remembered for a second as one that nobody will.
    private readonly Asked _asked = new(find: "UNION");

    public ValueTask InitializeAsync()
    {
        StoreInUse.IsAboutTheFile();
        return _store.InitializeAsync();
    }

    public ValueTask DisposeAsync()
    {
        _asked.Dispose();
        return _store.DisposeAsync();
    }

    [Fact]
    public async Task A_serial_is_found_by_its_ends_and_a_model_by_any_part_without_reading_every_warranty()
    {
        await _store.Get<Warranties>().ListAsync("C8NEW", null, null, 101, TestContext.Current.CancellationToken);

        var plan = Plan(_asked.Questions.First(q => q.Text.Contains("\"warranty\"", StringComparison.Ordinal)));
        plan.Count(step => step.StartsWith("SEARCH", StringComparison.Ordinal)).ShouldBe(4, string.Join("; ", plan));
        plan.ShouldNotContain(step => step.StartsWith("SCAN w", StringComparison.Ordinal));
    }

    /// <summary>How the database goes about it, a step a line.</summary>
    private List<string> Plan((string Text, Dictionary<string, object?> Values) question)
    {
        using var connection = new SqliteConnection($"Data Source={_store.File};Mode=ReadOnly");
        connection.Open();
        using var explain = connection.CreateCommand();
        explain.CommandText = $"EXPLAIN QUERY PLAN {question.Text}";
        foreach (var (name, value) in question.Values)
            explain.Parameters.AddWithValue(name, value ?? DBNull.Value);
        using var step = explain.ExecuteReader();
        var plan = new List<string>();
        while (step.Read())
            plan.Add(step.GetString(3));
        return plan;
    }

    /// <summary>What was asked meanwhile that has a word in it, as the store really asks it.</summary>
    private sealed class Asked : IObserver<DiagnosticListener>, IObserver<KeyValuePair<string, object?>>, IDisposable
    {
        private readonly string _find;
        private readonly List<IDisposable> _listening = [];

        public Asked(string find)
        {
            _find = find;
            _listening.Add(DiagnosticListener.AllListeners.Subscribe(this));
        }

        public List<(string Text, Dictionary<string, object?> Values)> Questions { get; } = [];

        public void OnNext(DiagnosticListener value)
        {
            if (value.Name == DbLoggerCategory.Name)
                _listening.Add(value.Subscribe(this));
        }

        public void OnNext(KeyValuePair<string, object?> value)
        {
            if (value.Value is CommandEventData { Command: var command } && value.Key == RelationalEventId.CommandExecuting.Name)
                if (command.CommandText.Contains(_find, StringComparison.Ordinal))
                    lock (Questions)
                        Questions.Add(
                            (command.CommandText, command.Parameters.Cast<DbParameter>().ToDictionary(p => p.ParameterName, p => p.Value))
                        );
        }

        public void OnCompleted() { }

        public void OnError(Exception error) { }

        public void Dispose() => _listening.ForEach(l => l.Dispose());
    }
}

using System.Security.Cryptography;
using System.Text;

namespace Nailcrow.Running.Fire;

/// <summary>A monitor that sends signed events (docs/intake.md), each until it was taken, and as often as it takes.</summary>
public sealed class Alarm(Doors doors, string sender, string secret)
{
    /// <summary>What an event says, by which it is found again.</summary>
    public static string Text(int nth) => $"fire {nth:00000} burns";

    public Task SendAsync(int nth, string asset, CancellationToken ct) => doors.SendAsync(at => Message(at, nth, asset), ct);

    private HttpRequestMessage Message(Uri at, int nth, string asset)
    {
        var body =
            $$$"""{"specversion":"1.0","type":"org.nailcrow.drive-fault.v1","id":"fire-{{{nth}}}","source":"/fire","""
            + $$$"""" "data":{"asset":"{{{asset}}}","text":"{{{Text(nth)}}}","bay":"2"}}"""";
        var stamp = $"{DateTimeOffset.UtcNow.ToUnixTimeSeconds()}";
        var message = new HttpRequestMessage(HttpMethod.Post, new Uri(at, $"api/intake/events/{sender}"))
        {
            Content = new StringContent(body, Encoding.UTF8, "application/cloudevents+json"),
        };
        message.Headers.Add("webhook-id", $"fire-{nth}");
        message.Headers.Add("webhook-timestamp", stamp);
        message.Headers.Add("webhook-signature", Sign($"fire-{nth}.{stamp}.{body}"));
        return message;
    }

    private string Sign(string text) =>
        $"v1,{Convert.ToBase64String(HMACSHA256.HashData(Encoding.UTF8.GetBytes(secret), Encoding.UTF8.GetBytes(text)))}";
}

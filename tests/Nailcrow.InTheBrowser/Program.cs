using Nailcrow.Core.Tickets;
using Nailcrow.Core.Tickets.Journal;
using Nailcrow.Core.Tickets.Moves;

// Touches the fold, what is next and the words, so that none of it may need what a browser has not.
var ticket = TicketRecord.Of(1001, []).Ticket;
Console.WriteLine($"{TicketNumber.Text(ticket.Number)}: {NextAction.Of(ticket).Say}");

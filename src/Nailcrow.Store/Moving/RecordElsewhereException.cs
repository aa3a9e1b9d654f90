namespace Nailcrow.Store.Moving;

/// <summary>The record is not in the database that was to be worked on, or only a part of it is; the message says where, and what to do.</summary>
public sealed class RecordElsewhereException(string says) : Exception(says);

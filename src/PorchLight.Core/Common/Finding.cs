namespace PorchLight.Core.Common;

/// <summary>Something a person has to put right, as a value and not an exception.</summary>
/// <param name="Place">Where it is: a question's key, a page's key, or another name the caller documents.</param>
/// <param name="Sentence">What is wrong and what to do, as one plain sentence.</param>
public sealed record Finding(string Place, string Sentence);

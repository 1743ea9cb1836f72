namespace PorchLight.Server.Hosting;

/// <summary>
/// Finds out what the JSON of every address looks like. That takes most of a second, like the model of the database, and the program
/// starts sooner when the two go on beside each other.
/// </summary>
internal static class EndpointJson
{
    private static int _isBegun;

    /// <summary>
    /// Begins it, once in a process, which shares what was found out. What goes wrong here goes wrong again, and is told, when the program
    /// makes its endpoints.
    /// </summary>
    /// <param name="app">The program, with all addresses mapped.</param>
    public static void FindOutMeanwhile(IEndpointRouteBuilder app)
    {
        if (Interlocked.Exchange(ref _isBegun, 1) == 0)
            _ = Task.Run(() => app.DataSources.Sum(source => source.Endpoints.Count));
    }
}

using System.Security.Claims;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Brand;

/// <summary>Whatever names entries of the business's lists, and has a word in changing them.</summary>
internal interface IListsInUse
{
    /// <summary>What stands in the way of a change.</summary>
    Task<IReadOnlyList<Finding>> CheckAsync(BusinessLists was, BusinessLists now);

    /// <summary>Follows a change, as part of the caller's write.</summary>
    /// <param name="was">The lists until then.</param>
    /// <param name="now">The lists from then on.</param>
    /// <param name="who">Who changes them.</param>
    /// <param name="at">The business's now.</param>
    Task ChangeAsync(BusinessLists was, BusinessLists now, ClaimsPrincipal who, Instant at);
}

using Microsoft.AspNetCore.Identity;
using Zeitplan.Core;

namespace Zeitplan.Server.School;

/// <summary>What the framework says about passwords and addresses, at the field it concerns.</summary>
internal static class Passwords
{
    /// <param name="password">The field the new password was written into.</param>
    public static IEnumerable<Problem> Problems(IdentityResult refused, string password = "password")
    {
        // The address is the name one signs in with; what is wrong with it is said once.
        var aboutEmail = refused.Errors.Any(error => error.Code.Contains("Email", StringComparison.Ordinal));
        return refused
            .Errors.Where(error => !aboutEmail || !error.Code.Contains("UserName", StringComparison.Ordinal))
            .Select(error => new Problem(
                error.Code == nameof(IdentityErrorDescriber.PasswordMismatch) ? "current"
                    : error.Code.Contains("Email", StringComparison.Ordinal) ? "email"
                    : error.Code.Contains("UserName", StringComparison.Ordinal) ? "email"
                    : password,
                error.Code switch
                {
                    nameof(IdentityErrorDescriber.PasswordMismatch) => "This is not the password you have now.",
                    nameof(IdentityErrorDescriber.DuplicateEmail) => "Somebody signs in with this address already.",
                    nameof(IdentityErrorDescriber.InvalidEmail) or nameof(IdentityErrorDescriber.InvalidUserName) =>
                        "This is not an email address.",
                    _ => error.Description,
                }
            ));
    }
}

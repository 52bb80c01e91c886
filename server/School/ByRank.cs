using Microsoft.AspNetCore.Authorization;
using Zeitplan.Core.People;

namespace Zeitplan.Server.School;

/// <summary>The endpoints under an address, by the least rank that may call them. Whoever maps one says the rank, and
/// nothing else decides it; without one, nobody gets in.</summary>
/// <param name="Self">Everybody about their own sign-in, even before they have the second factor their school asks
/// for.</param>
internal sealed record ByRank(
    RouteGroupBuilder Stranger,
    RouteGroupBuilder Self,
    RouteGroupBuilder Anyone,
    RouteGroupBuilder Teacher,
    RouteGroupBuilder Head
)
{
    public static ByRank Under(RouteGroupBuilder address) =>
        new(
            address.MapGroup("").AllowAnonymous(),
            address.MapGroup("").RequireAuthorization(nameof(Self)),
            address.MapGroup("").RequireAuthorization(nameof(Anyone)),
            address.MapGroup("").RequireAuthorization(nameof(Teacher)),
            address.MapGroup("").RequireAuthorization(nameof(Head))
        );

    /// <summary>What is further down the address.</summary>
    public ByRank Group(string prefix) => Each(rank => rank.MapGroup(prefix));

    public ByRank Each(Func<RouteGroupBuilder, RouteGroupBuilder> of) =>
        new(of(Stranger), of(Self), of(Anyone), of(Teacher), of(Head));

    public static void AddPolicies(IServiceCollection services)
    {
        var authorization = services
            .AddAuthorizationBuilder()
            .SetFallbackPolicy(
                new AuthorizationPolicyBuilder().RequireAuthenticatedUser().RequireRole("nobody").Build()
            );
        Allow(nameof(Head), StaffRole.Head);
        Allow(nameof(Teacher), StaffRole.Head, StaffRole.Instructor);
        Allow(nameof(Anyone), Enum.GetValues<StaffRole>());
        authorization.AddPolicy(nameof(Self), its => its.RequireRole(Enum.GetNames<StaffRole>()));

        void Allow(string policy, params StaffRole[] roles) =>
            authorization.AddPolicy(
                policy,
                its =>
                    its.RequireRole(roles.Select(role => role.ToString()))
                        .RequireAssertion(who => !who.User.HasClaim(claim => claim.Type == StaffClaims.MustSecure))
            );
    }
}

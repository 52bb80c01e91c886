namespace Zeitplan.Core.Tests;

public sealed class ArchitectureTests
{
    [Fact]
    public void The_rules_of_the_job_depend_on_nothing_but_the_language() =>
        Assert.All(
            typeof(Problem).Assembly.GetReferencedAssemblies(),
            reference =>
                Assert.True(
                    reference.Name
                        is "System.Runtime"
                            or "System.Runtime.InteropServices"
                            or "System.Collections"
                            or "System.Linq"
                            or "System.Text.RegularExpressions"
                            or "System.Memory"
                            or "System.Text.Json"
                            or "System.Text.Encodings.Web",
                    $"core references {reference.Name}"
                )
        );
}

using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace Zeitplan.Server.Tests.Web;

/// <summary>What goes wrong in the program itself is found again, and tells nobody's name.</summary>
public sealed class OwnMistakesTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_mistake_of_ours_is_logged_with_the_number_that_is_said_and_without_what_was_worked_on()
    {
        var log = new Kept();
        await using var application = Template
            .Open("", Connection)
            .WithWebHostBuilder(builder =>
                builder.ConfigureTestServices(services =>
                    services.AddSingleton<ILoggerProvider>(log).AddTransient<IStartupFilter, Broken>()
                )
            );
        var caller = new Caller(application.CreateClient());
        var problem = await caller.Client.GetAsync("/api/session?broken").ProblemAsync(500);
        Assert.Equal("urn:zeitplan:problem:unexpected", problem.Text("type"));
        var number = problem.Text("traceId");
        Assert.Contains(number, problem.Text("detail"), StringComparison.Ordinal);
        var entry = Assert.Single(log.Entries, written => written.Contains(number, StringComparison.Ordinal));
        Assert.Contains(nameof(ArithmeticException), entry, StringComparison.Ordinal);
        Assert.DoesNotContain(log.Entries, written => written.Contains("Rademaker", StringComparison.Ordinal));
    }

    [Fact]
    public void Sentences_read_the_same_whatever_language_the_machine_is_set_to() =>
        Assert.Equal(
            System.Globalization.CultureInfo.InvariantCulture,
            System.Globalization.CultureInfo.DefaultThreadCurrentCulture
        );

    /// <summary>Fails at one address, with a name in its message.</summary>
    private sealed class Broken : IStartupFilter
    {
        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
            app =>
            {
                app.UseExceptionHandler();
                app.Use(
                    (http, go) =>
                        http.Request.QueryString.Value == "?broken"
                            ? throw new ArithmeticException("Imke Rademaker has 0 counts.")
                            : go(http)
                );
                next(app);
            };
    }

    private sealed class Kept : ILoggerProvider, ILogger
    {
        private readonly List<string> entries = [];

        public IReadOnlyList<string> Entries
        {
            get
            {
                lock (entries)
                {
                    return [.. entries];
                }
            }
        }

        public ILogger CreateLogger(string categoryName) => this;

        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => true;

        public void Log<TState>(
            LogLevel logLevel,
            EventId eventId,
            TState state,
            Exception? exception,
            Func<TState, Exception?, string> formatter
        )
        {
            lock (entries)
            {
                entries.Add($"{formatter(state, exception)} {exception}");
            }
        }

        public void Dispose() { }
    }
}

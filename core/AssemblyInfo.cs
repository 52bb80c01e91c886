using System.Runtime.CompilerServices;

[assembly: InternalsVisibleTo("Zeitplan.Core.Tests")]

using Microsoft.AspNetCore.Http.Metadata;

namespace Zeitplan.Server.Web;

/// <summary>How large a request to an endpoint may be, in bytes, where that is more than usual.</summary>
internal sealed record SizeLimit(long? MaxRequestBodySize) : IRequestSizeLimitMetadata;

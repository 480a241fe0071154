/** Directives that hand a request to another program. */
export const passing: ReadonlySet<string> = new Set([
  'proxy_pass',
  'fastcgi_pass',
  'uwsgi_pass',
  'scgi_pass',
  'grpc_pass',
  'memcached_pass',
])

/** Directives that the model follows, or that leave status, file and location of an answer as they are. */
const names = new Set(
  `location server server_name listen root alias index try_files error_page internal deny allow types default_type
absolute_redirect port_in_redirect server_name_in_redirect recursive_error_pages merge_slashes add_header more_set_headers
more_clear_headers expires etag if_modified_since charset charset_types source_charset override_charset sendfile sendfile_max_chunk
tcp_nopush tcp_nodelay aio directio output_buffers postpone_output read_ahead access_log error_log log_not_found log_subrequest
log_format open_file_cache open_file_cache_valid open_file_cache_min_uses open_file_cache_errors server_tokens satisfy auth_basic
auth_basic_user_file limit_req limit_req_status limit_req_log_level limit_req_dry_run limit_conn limit_conn_status limit_rate
limit_rate_after resolver resolver_timeout reset_timedout_connection lingering_close lingering_time lingering_timeout send_timeout
send_lowat max_ranges msie_padding msie_refresh chunked_transfer_encoding disable_symlinks satisfy stub_status set_real_ip_from
real_ip_header real_ip_recursive http2 http2_push http2_push_preload http2_max_concurrent_streams http3 quic_retry
large_client_header_buffers underscores_in_headers ignore_invalid_headers connection_pool_size request_pool_size
types_hash_max_size types_hash_bucket_size variables_hash_max_size variables_hash_bucket_size map_hash_max_size map_hash_bucket_size
server_names_hash_max_size server_names_hash_bucket_size uninitialized_variable_warn rewrite_log mirror_request_body early_hints
subrequest_output_buffer_size modsecurity modsecurity_rules_file`.split(/\s+/),
)

const families =
  /^(?:gzip|gunzip|brotli|zstd|ssl|client|keepalive|proxy|fastcgi|uwsgi|scgi|grpc|http2|http3|quic|open_file_cache|limit|lingering|userid|geoip2?|real_ip|otel|opentracing|pagespeed|vhost_traffic_status|health_check|zone|status_zone)(?:_|$)/

/** Whether a directive that is no step leaves the model right. */
export function harmless(name: string): boolean {
  return names.has(name) || families.test(name)
}

/** Files that come with the server and change nothing of what the model tells. */
const ownFiles =
  /(?:^|\/)(?:mime\.types|(?:fastcgi|uwsgi|scgi|proxy|ssl|options-ssl)[\w.-]*|modules-enabled\/.*|gzip[\w.-]*)$/

/** Whether an `include` names such a file. */
export function isOwnFile(pattern: string): boolean {
  return ownFiles.test(pattern)
}

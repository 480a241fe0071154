/** One server block as people write it: what stands in it, where the site is, and where the folder is copied to. */
export interface Written {
  /** `ROOT` is the directory of the folder, or the one that holds it where the site is below a path. */
  readonly text: string
  readonly base?: string
  /** Of the http block. */
  readonly outside?: string
}

const sub = '/crossings/'

/** By what they are for. */
export const nginxConfigurations: Readonly<Record<string, Written>> = {
  'plain files': { text: 'root ROOT; index index.html;' },
  'a single page': { text: 'root ROOT; location / { try_files $uri $uri/ /index.html; }' },
  'a single page, files first, no directories': {
    text: 'root ROOT; location / { try_files $uri /index.html; }',
  },
  'a single page with real errors for assets': {
    text: 'root ROOT; location / { try_files $uri $uri/ /index.html; } location /assets/ { try_files $uri =404; expires 1y; add_header Cache-Control "public, immutable"; }',
  },
  'a fallback in the server block': { text: 'root ROOT; try_files $uri $uri/ /index.html;' },
  'a fallback with its query': {
    text: 'root ROOT; location / { try_files $uri $uri/ /index.html?$query_string; }',
  },
  'an error page as the fallback': { text: 'root ROOT; error_page 404 /index.html;' },
  'an error page as the fallback, status 200': { text: 'root ROOT; error_page 404 =200 /index.html;' },
  'an error page as the fallback, status of the answer': {
    text: 'root ROOT; error_page 404 403 = /index.html;',
  },
  'a page for what is not found': {
    text: 'root ROOT; error_page 404 /404.html; location = /404.html { internal; }',
  },
  'a page that is not there': { text: 'root ROOT; error_page 404 /lost.html; error_page 500 502 /50x.html;' },
  'clean URLs': {
    text: 'root ROOT; location / { try_files $uri $uri.html $uri/ =404; } error_page 404 /404.html;',
  },
  'clean URLs, the ending sent away': {
    text: 'root ROOT; location / { if ($request_uri ~ ^/(.*)\\.html(\\?|$)) { return 301 /$1; } try_files $uri $uri.html $uri/index.html =404; }',
  },
  'clean URLs, slashes sent away': {
    text: 'root ROOT; absolute_redirect off; rewrite ^/(.+)/$ /$1 permanent; location / { try_files $uri $uri.html $uri/index.html /404.html; }',
  },
  'slashes added': {
    text: 'root ROOT; location / { rewrite ^([^.]*[^/])$ $1/ permanent; try_files $uri $uri/index.html =404; }',
  },
  'a named fallback': {
    text: 'root ROOT; location / { try_files $uri $uri/ @app; } location @app { rewrite ^ /index.html last; }',
  },
  'a named fallback without an end': {
    text: 'root ROOT; location / { try_files $uri @app; } location @app { rewrite ^(.*)$ /index.html break; }',
  },
  'a rewrite where there is no file': {
    text: 'root ROOT; location / { if (!-e $request_filename) { rewrite ^(.*)$ /index.html last; } }',
  },
  'a rewrite that goes round for ever': { text: 'root ROOT; location / { rewrite ^ /index.html last; }' },
  'a rewrite that stays': { text: 'root ROOT; location / { rewrite ^/app/(.*)$ /assets/$1 break; }' },
  'below a path, by its root': {
    text: 'root ROOT; location /crossings/ { try_files $uri $uri/ /crossings/index.html; }',
    base: sub,
  },
  'below a path, the fallback of the top': {
    text: 'root ROOT; location / { try_files $uri $uri/ /index.html; }',
    base: sub,
  },
  'below a path, by an alias': {
    text: 'location /crossings/ { alias ROOT/crossings/; try_files $uri $uri/ /crossings/index.html; }',
    base: sub,
  },
  'below a path, by an alias, index only': {
    text: 'location /crossings/ { alias ROOT/crossings/; }',
    base: sub,
  },
  'below a path, an alias without its slash': {
    text: 'location /crossings/ { alias ROOT/crossings; index index.html; }',
    base: sub,
  },
  'below a path, a location without its slash': {
    text: 'location /crossings { alias ROOT/crossings; try_files $uri $uri/ /crossings/index.html; }',
    base: sub,
  },
  'below a path, the top sent on': {
    text: 'location = / { return 302 /crossings/; } location = /crossings { return 301 /crossings/; } location /crossings/ { alias ROOT/crossings/; try_files $uri /crossings/index.html; }',
    base: sub,
  },
  'below a path, its beginning taken off': {
    text: 'location /crossings/ { rewrite ^/crossings/(.*)$ /$1 break; root ROOT/crossings; }',
    base: sub,
  },
  'below a path, by a pattern': {
    text: 'location ~ ^/crossings/(.*)$ { alias ROOT/crossings/$1; }',
    base: sub,
  },
  languages: {
    text: 'root ROOT; location ~ ^/(de|en)/ { try_files $uri $uri/ /$1/index.html =404; } location / { try_files $uri $uri/ =404; }',
  },
  'languages by the visitor': {
    text: 'root ROOT; location = / { return 302 /$lang/; } location ~ ^/(about|deep)/ { try_files $uri /$1/index.html; }',
    outside: 'map $http_accept_language $lang { default about; ~*^de deep; }',
  },
  'redirects of old paths': {
    text: 'root ROOT; rewrite ^/old/(.*)$ /about/$1 permanent; rewrite ^/older$ /about/ redirect; location = /away { return 301 https://other.example/there; } location /gone { return 410; } location / { try_files $uri $uri/ =404; }',
  },
  'redirects by a map': {
    text: 'root ROOT; if ($moved) { return 301 $moved; } location / { try_files $uri $uri/ /404.html; }',
    outside:
      'map $uri $moved { default ""; /old /about/; /plain /plain.html; ~^/by-name/(?<name>[a-z]+)$ /about/$name; }',
  },
  'an API passed on': {
    text: 'root ROOT; location /api/ { proxy_pass http://127.0.0.1:9; } location / { try_files $uri $uri/ /index.html; }',
  },
  'an API in front of patterns': {
    text: 'root ROOT; location ^~ /assets/ { try_files $uri =404; } location ~* \\.(js|css|svg)$ { try_files $uri /index.html; expires max; } location / { try_files $uri /index.html; }',
  },
  'caching by kinds': {
    text: 'root ROOT; location ~* \\.(?:css|js|svg)$ { expires 1y; access_log off; } location ~ /\\. { deny all; } location / { try_files $uri $uri/ /index.html; }',
  },
  'names with a point kept back': {
    text: 'root ROOT; location ~ /\\.(?!well-known) { deny all; return 404; } location / { try_files $uri $uri/ =404; } error_page 403 404 /404.html;',
  },
  'an exact page': {
    text: 'root ROOT; location = /index.html { add_header Cache-Control no-cache; } location / { try_files $uri $uri/ /index.html; } location = /plain { try_files /plain.html =404; }',
  },
  'locations in locations': {
    text: 'root ROOT; location /assets/ { location ~ \\.js$ { try_files $uri =410; } location = /assets/gone.css { return 204; } try_files $uri =404; } location ~ \\.css$ { return 418; } location / { try_files $uri /index.html; }',
  },
  'an if that hides the fallback': {
    text: 'root ROOT; location / { set $x 1; if ($x) { add_header X-Own yes; } try_files $uri $uri/ /index.html; }',
  },
  'relative redirects': {
    text: 'root ROOT; absolute_redirect off; location / { try_files $uri $uri/ =404; } location = /old { return 301 /about/; }',
  },
  'the page of maintenance': {
    text: 'root ROOT; error_page 503 /404.html; location /deep { return 503; } location / { if (-f ROOT/down.html) { return 503; } try_files $uri $uri/ =404; }',
  },
  'an error page that is a location': {
    text: 'root ROOT; error_page 404 = @lost; location @lost { return 302 /about/; }',
  },
  'errors of errors': {
    text: 'root ROOT; recursive_error_pages on; error_page 404 = /first; location = /first { error_page 404 /404.html; return 404; }',
  },
  'another index': {
    text: 'root ROOT; index plain.html index.html; location /deep/ { index leaf.txt; } location /listed/ { autoindex on; }',
  },
  'one type for all': {
    text: 'root ROOT; default_type text/plain; location /assets/ { types { text/x-own js; } } location ~ \\.mjs$ { types { } default_type text/javascript; }',
  },
  'a root with a variable': {
    text: 'set $site ROOT; root $site; location / { try_files $uri $uri/index.html =404; }',
  },
}

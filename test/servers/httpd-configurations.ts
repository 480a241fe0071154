/** What people write for httpd: a virtual host, or the `.htaccess` files of their folder. */
export interface Written {
  /** In the virtual host, `ROOT` for the document root; none where the files decide. */
  readonly host?: string
  /** By directory, from the document root. */
  readonly files?: Readonly<Record<string, string>>
  readonly base?: string
}

const sub = '/crossings/'
const htaccess = (text: string, more: Readonly<Record<string, string>> = {}): Written => ({
  files: { '': text, ...more },
})

const usual = `<IfModule mod_rewrite.c>
  RewriteEngine On
  RewriteBase /
  RewriteRule ^index\\.html$ - [L]
  RewriteCond %{REQUEST_FILENAME} !-f
  RewriteCond %{REQUEST_FILENAME} !-d
  RewriteRule . /index.html [L]
</IfModule>`

/** By what they are for. */
export const httpdConfigurations: Readonly<Record<string, Written>> = {
  'nothing said': htaccess('# nothing'),
  'a single page': htaccess(usual),
  'a single page, no base': htaccess(
    'RewriteEngine on\nRewriteCond %{REQUEST_FILENAME} -f [OR]\nRewriteCond %{REQUEST_FILENAME} -d\nRewriteRule ^ - [L]\nRewriteRule ^ index.html [L]',
  ),
  'a single page, the whole of it': htaccess(
    'RewriteEngine On\nRewriteCond %{DOCUMENT_ROOT}%{REQUEST_URI} !-f\nRewriteRule ^ /index.html',
  ),
  'a fallback resource': htaccess('FallbackResource /index.html'),
  'a fallback resource that is not there': htaccess('FallbackResource /lost.html'),
  'a rule that goes round for ever': htaccess(
    'RewriteEngine On\nRewriteRule . /index.html [L]\nRewriteRule ^(.*)$ /x/$1 [L]',
  ),
  'a rule that always holds': htaccess('RewriteEngine On\nRewriteRule ^ /index.html [L]'),
  'a page for what is not found': htaccess('ErrorDocument 404 /404.html'),
  'the page as an error': htaccess('ErrorDocument 404 /index.html\nErrorDocument 403 /404.html'),
  'an error page that is not there': htaccess('ErrorDocument 404 /lost.html'),
  'an error as a text': htaccess('ErrorDocument 404 "Nothing here"'),
  'an error elsewhere': htaccess('ErrorDocument 404 https://other.example/'),
  'clean URLs': htaccess(
    'RewriteEngine On\nRewriteCond %{REQUEST_FILENAME} !-d\nRewriteCond %{REQUEST_FILENAME}.html -f\nRewriteRule ^(.+)$ $1.html [L]\nErrorDocument 404 /404.html',
  ),
  'clean URLs, the ending sent away': htaccess(
    'RewriteEngine On\nRewriteCond %{THE_REQUEST} \\s/+(.+?)\\.html[\\s?] [NC]\nRewriteRule ^ /%1 [R=301,L]\nRewriteCond %{REQUEST_FILENAME} !-d\nRewriteCond %{REQUEST_FILENAME}.html -f\nRewriteRule ^(.+?)/?$ $1.html [L]',
  ),
  'slashes taken away': htaccess(
    'DirectorySlash Off\nRewriteEngine On\nRewriteCond %{REQUEST_FILENAME} !-d\nRewriteRule ^(.*)/$ /$1 [R=301,L]\nRewriteCond %{REQUEST_FILENAME} -d\nRewriteCond %{REQUEST_FILENAME}/index.html -f\nRewriteRule ^(.*[^/])$ $1/index.html [L]',
  ),
  'redirects of old paths': htaccess(
    'Redirect 301 /old /about\nRedirect permanent /older https://other.example/x\nRedirectMatch 302 ^/by-name/([a-z]+)$ /about/$1\nRedirect gone /gone\nRedirect 404 /deep/er',
  ),
  'redirects by rules': htaccess(
    'RewriteEngine On\nRewriteRule ^old/(.*)$ /about/$1 [R=301,L]\nRewriteRule ^older$ about/ [R=302,L]\nRewriteRule ^away$ https://other.example/there [L]\nRewriteRule ^gone - [G]\nRewriteRule ^_kept - [F]\nRewriteRule ^by-name/(.*)$ /a%20page/$1 [R,NE,L]',
  ),
  'rules of a base': htaccess(
    'RewriteEngine On\nRewriteBase /\nRewriteRule ^older$ about/ [R=302,L]\nRewriteRule ^first$ plain.html [L]',
  ),
  'names with a point kept back': htaccess(
    'RewriteEngine On\nRewriteRule (^|/)\\.(?!well-known) - [F]\nErrorDocument 403 /404.html',
  ),
  'a canonical host': htaccess(
    'RewriteEngine On\nRewriteCond %{HTTP_HOST} ^www\\.(.+)$ [NC]\nRewriteRule ^ https://%1%{REQUEST_URI} [R=301,L]\nRewriteCond %{HTTPS} on\nRewriteRule ^(.*)$ http://%{HTTP_HOST}/$1 [R=301,L]\nFallbackResource /index.html',
  ),
  'rules of an inner directory': htaccess(usual, {
    about: 'RewriteEngine On\nRewriteRule ^only$ /plain.html [L]',
    deep: 'FallbackResource /404.html',
    listed: 'Options +Indexes\nDirectoryIndex disabled',
    assets: 'ErrorDocument 404 default\nRewriteEngine Off',
  }),
  'another index': htaccess('DirectoryIndex plain.html index.html'),
  'lists of files': htaccess('Options +Indexes'),
  'files kept back': htaccess(
    '<FilesMatch "\\.(txt|json)$">\nRequire all denied\n</FilesMatch>\n<Files "plain.html">\nRequire all denied\n</Files>',
  ),
  'types of its own': htaccess(
    'AddType text/x-own .js .txt\nAddType application/wasm .wasm\n<IfModule mod_mime.c>\nAddType text/javascript mjs\n</IfModule>',
  ),
  caching: htaccess(
    'ExpiresActive On\nExpiresByType text/html "access plus 1 year"\n<IfModule mod_headers.c>\n<FilesMatch "\\.js$">\nHeader set Cache-Control "max-age=31536000"\n</FilesMatch>\n</IfModule>\nFallbackResource /index.html',
  ),
  'flags that skip and chain': htaccess(
    'RewriteEngine On\nRewriteRule ^plain$ - [S=1]\nRewriteRule ^(plain|first)$ /404.html [L]\nRewriteCond %{REQUEST_URI} ^/old$ [NC,OR]\nRewriteCond %{REQUEST_URI} =/older\nRewriteRule ^ /about/index.html [END]\nRewriteRule ^by-name/(.*)$ by/$1 [C]\nRewriteRule ^by/x$ /plain.html [L]',
  ),
  'below a path': {
    files: {
      crossings:
        'RewriteEngine On\nRewriteBase /crossings/\nRewriteCond %{REQUEST_FILENAME} !-f\nRewriteCond %{REQUEST_FILENAME} !-d\nRewriteRule . index.html [L]',
    },
    base: sub,
  },
  'below a path, the base of the top': { files: { crossings: usual }, base: sub },
  'below a path, a fallback resource': {
    files: { crossings: 'FallbackResource /crossings/index.html' },
    base: sub,
  },
  'below a path, the fallback of the top': {
    files: { crossings: 'FallbackResource /index.html' },
    base: sub,
  },
  'a virtual host of plain files': { host: 'DocumentRoot "ROOT"' },
  'a virtual host with a fallback': {
    host: 'DocumentRoot ROOT\nFallbackResource /index.html\nErrorDocument 404 /404.html',
  },
  'a virtual host with rules': {
    host: 'DocumentRoot ROOT\nRewriteEngine On\nRewriteCond %{DOCUMENT_ROOT}%{REQUEST_URI} !-f\nRewriteCond %{DOCUMENT_ROOT}%{REQUEST_URI} !-d\nRewriteRule ^/(?!api/) /index.html [L]\nRewriteRule ^/old$ /about/ [R=301,L]',
  },
  'a virtual host whose rules test what is not mapped yet': {
    host: 'DocumentRoot ROOT\nRewriteEngine On\nRewriteCond %{REQUEST_FILENAME} !-f\nRewriteRule ^/assets/ - [L]\nRewriteRule ^/sailings /index.html [L]',
  },
  'a virtual host with a directory': {
    host: 'DocumentRoot ROOT\n<Directory "ROOT">\nOptions -Indexes\nAllowOverride None\nRewriteEngine On\nRewriteCond %{REQUEST_FILENAME} !-f\nRewriteRule ^ index.html [L]\n</Directory>\n<Directory "ROOT/assets">\nErrorDocument 404 /404.html\nRewriteEngine Off\n</Directory>',
  },
  'a virtual host that hands paths on': {
    host: 'DocumentRoot ROOT\nProxyPass /api/static !\nProxyPass /api http://127.0.0.1:9/\nProxyPassMatch ^/by-name/(.*)$ http://127.0.0.1:9/$1\nRedirect 301 /old /about\nFallbackResource /index.html',
  },
  'a virtual host with locations': {
    host: 'DocumentRoot ROOT\n<Location "/deep">\nRequire all denied\n</Location>\n<LocationMatch "^/(about|plain)">\nErrorDocument 404 /404.html\n</LocationMatch>\n<Location "/both/">\nErrorDocument 404 /plain.html\n</Location>',
  },
  'a virtual host with an alias': {
    host: 'DocumentRoot "ROOT-away"\nAlias /crossings ROOT/crossings\n<Directory "ROOT/crossings">\nFallbackResource /crossings/index.html\n</Directory>\nRedirectMatch 302 ^/$ /crossings/',
    base: sub,
  },
}

package server

// This file serves the built front end.

import (
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"regexp"
	"strings"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/say"
)

// files is the built front end with its content security policy.
type files struct {
	fs    fs.FS
	index []byte
	csp   string

	language say.Language
}

var inlineScript = regexp.MustCompile(`(?s)<script>(.*?)</script>`)

const notBuilt = `<!doctype html><html lang="en"><title>Deep Bay</title><p>The front end is not built. Run <code>make build</code>.</p></html>`

func newFiles(fsys fs.FS, in say.Language) (*files, error) {
	index, err := fs.ReadFile(fsys, "index.html")
	if errors.Is(err, fs.ErrNotExist) {
		index, err = []byte(notBuilt), nil
	}
	if err != nil {
		return nil, err
	}
	// The start-up script that SvelteKit writes into the page is allowed by its
	// hash, and no other inline script is.
	script := "script-src 'self'"
	for _, m := range inlineScript.FindAllSubmatch(index, -1) {
		sum := sha256.Sum256(m[1])
		script += " 'sha256-" + base64.StdEncoding.EncodeToString(sum[:]) + "'"
	}
	if err := mime.AddExtensionType(".woff2", "font/woff2"); err != nil {
		return nil, err
	}
	return &files{fsys, index, "default-src 'self'; " + script +
		"; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'", in}, nil
}

// serve answers a path of the application: a file if there is one, else the
// page itself, so that deep links work. A file of the build that is gone is 404,
// by which an old tab knows that there is a newer build.
func (f *files) serve(c *gin.Context) {
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		write(c, f.language, ProblemDoc{Title: "method not allowed", Status: http.StatusMethodNotAllowed, Detail: c.Request.Method + " does nothing here"})
		return
	}
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	info, err := fs.Stat(f.fs, name)
	switch {
	case err == nil && !info.IsDir() && name != "index.html":
		f.file(c, name)
	case strings.HasPrefix(name, "_app/"):
		write(c, f.language, ProblemDoc{Title: "not found", Status: http.StatusNotFound, Detail: "this file belongs to another build: reload the page"})
	default:
		c.Header("Cache-Control", "no-cache")
		c.Data(http.StatusOK, "text/html; charset=utf-8", f.index)
	}
}

func (f *files) file(c *gin.Context, name string) {
	cache := "no-cache"
	if strings.HasPrefix(name, "_app/immutable/") {
		cache = "public, max-age=31536000, immutable"
	}
	c.Header("Cache-Control", cache)
	c.Header("Vary", "Accept-Encoding")
	c.Header("Content-Type", mime.TypeByExtension(path.Ext(name)))
	for _, enc := range []struct{ name, ext string }{{"br", ".br"}, {"gzip", ".gz"}} {
		if !strings.Contains(c.GetHeader("Accept-Encoding"), enc.name) {
			continue
		}
		if _, err := fs.Stat(f.fs, name+enc.ext); err == nil {
			c.Header("Content-Encoding", enc.name)
			name += enc.ext
			break
		}
	}
	http.ServeFileFS(c.Writer, c.Request, f.fs, name)
}

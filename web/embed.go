// Package web hands the built front end to the server.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:build
var files embed.FS

// Files is the build folder.
func Files() (fs.FS, error) { return fs.Sub(files, "build") }

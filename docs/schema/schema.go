// Package schema carries the published JSON Schemas (draft 2020-12) of Deep
// Bay's open formats. The files are generated from the Go types; run
// `make generate` after a change of a type.
package schema

import "embed"

// Files holds NAME.schema.json for sheet, part, job, observation, check and api.
//
//go:embed *.schema.json
var Files embed.FS

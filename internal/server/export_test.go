package server

import "github.com/gin-gonic/gin"

// Routes is what the API answers: "GET /api/jobs/:id".
func Routes() []string {
	r := gin.New()
	(&api{}).routes(r.Group("/api"))
	var out []string
	for _, info := range r.Routes() {
		out = append(out, info.Method+" "+info.Path)
	}
	return out
}

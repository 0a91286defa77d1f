package server

// This file answers for the short forms of parts while they are filled in. Nothing is
// changed.

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/part"
	"deepbay/internal/core/shorthand"
)

// FormQuestion is a form as it stands: of a part, or of nothing yet; with fields, where
// some were filled in.
type FormQuestion struct {
	Kind   shorthand.Kind `json:"kind,omitempty"` // of a new part; one that is there has its own
	Part   *part.Part     `json:"part,omitempty"`
	Values []FormValue    `json:"values,omitempty" jsonschema:"maxItems=40"`
}

// FormValue is what stands in a field.
type FormValue struct {
	Name  string `json:"name" jsonschema:"maxLength=40"`
	Value string `json:"value" jsonschema:"maxLength=120"`
}

func (s *api) form(c *gin.Context) error {
	in, err := body[FormQuestion](c, "FormQuestion")
	if err != nil {
		return err
	}
	values := map[string]string{}
	if in.Part != nil {
		in.Kind = shorthand.KindOf(in.Part)
	}
	if in.Values == nil && in.Part != nil {
		for _, f := range shorthand.Fields(in.Kind) {
			values[f.Name] = f.Of(in.Part)
		}
	}
	for _, v := range in.Values {
		values[v.Name] = v.Value
	}
	filled := shorthand.Fill(in.Kind, values, in.Part)
	c.JSON(http.StatusOK, s.Language.Form(in.Kind, values, &filled))
	return nil
}

package server

// This file says what lines mean while somebody writes down what lies in a machine. Nothing
// is changed.

import (
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
)

// mostWritten is how much is read at once, in bytes.
const mostWritten = 4000

// written reads lines about the machine of a job.
func (s *api) written(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	return s.meaning(c, &k.Job)
}

// writtenOnSheet reads lines about a machine that is no job yet.
func (s *api) writtenOnSheet(c *gin.Context) error {
	k, err := s.Data.Sheet(c.Request.Context(), machine.ID(c.Param("id")))
	if err != nil {
		return err
	}
	j := job.New("new", "new", k.Sheet, rig.Wish{}, time.Time{})
	return s.meaning(c, &j)
}

func (s *api) meaning(c *gin.Context, j *job.Job) error {
	text := c.Query("text")
	if len(text) > mostWritten {
		return problem.List{{Pointer: "/text", Says: fmt.Sprintf("there are %d bytes, and %d are read at once", len(text), mostWritten), Cure: "take some of the lines at a time"}}
	}
	c.JSON(http.StatusOK, s.Language.Writing(j.Write(text)))
	return nil
}

package server

// This file is the pages of manuals beside a sheet: each comes as a picture, and goes as one.

import (
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/problem"
	"deepbay/internal/picture"
	"deepbay/internal/store"
)

const (
	maxPicture = 24 << 20 // a telephone's picture of a page has 12 MiB at most
	longSays   = 120      // letters that say what a picture shows
)

// SheetPicture is a page of a manual beside a sheet, or a photograph beside a job; what it shows is asked for by its id.
type SheetPicture struct {
	ID     store.PictureID `json:"id"`
	Says   string          `json:"says"`
	At     time.Time       `json:"at"`
	By     string          `json:"by"`
	Width  int             `json:"width"`
	Height int             `json:"height"`
}

// album is whose pictures a request is about.
func album(c *gin.Context) store.Album {
	if strings.HasPrefix(c.FullPath(), "/api/jobs/") {
		return store.Photographs(job.ID(c.Param("id")))
	}
	return store.Pages(machine.ID(c.Param("id")))
}

// photographs lists what was seen at the steps of a job.
func (s *api) photographs(c *gin.Context) error { return s.sendPictures(c, album(c)) }

func (s *api) pictures(c *gin.Context, of store.Album) ([]SheetPicture, error) {
	kept, err := s.Data.Pictures(c.Request.Context(), of)
	out := make([]SheetPicture, len(kept))
	for i, k := range kept {
		out[i] = SheetPicture{k.ID, k.Says, k.At, k.By, k.Width, k.Height}
	}
	return out, err
}

// picture sends what is seen on one. Its name is the digest of its bytes, so that a browser
// may keep it.
func (s *api) picture(c *gin.Context) error {
	b, err := s.Data.Picture(c.Request.Context(), album(c), store.PictureID(c.Param("picture")))
	if err != nil {
		return err
	}
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	c.Data(http.StatusOK, "image/jpeg", b)
	return nil
}

// keepPicture puts a picture beside a sheet and answers with the sheet's pictures.
func (s *api) keepPicture(c *gin.Context) error {
	file, err := io.ReadAll(c.Request.Body) // which was bounded before
	if err != nil {
		return err
	}
	c.Set(asked, file)
	says := strings.TrimSpace(c.Query("says"))
	if n := utf8.RuneCountInString(says); n == 0 || n > longSays {
		return problem.List{{Pointer: "/says", Says: fmt.Sprintf("what the picture shows has %d letters, 1 to %d are taken", n, longSays), Cure: "say which page it is, and of what"}}
	}
	p, err := picture.Read(file)
	if err != nil {
		return problem.List{{Says: err.Error(), Cure: "take a picture of the page as JPEG, PNG or WebP"}}
	}
	of := album(c)
	_, err = s.Data.KeepPicture(c.Request.Context(), store.PictureWrite{Album: of, Says: says, Picture: p, Stamp: s.stamp(c.Query("by")), Request: request(c, c.Query("key"))})
	var before *store.Applied
	switch {
	case errors.Is(err, store.ErrManyPictures):
		return problem.List{{Says: store.ErrManyPictures.Error(), Cure: "take away one that nobody looks at"}}
	case err != nil && !errors.As(err, &before):
		return err
	}
	return s.sendPictures(c, of)
}

// dropPicture takes a picture away and answers with the sheet's pictures.
func (s *api) dropPicture(c *gin.Context) error {
	of := album(c)
	if err := s.Data.DropPicture(c.Request.Context(), of, store.PictureID(c.Param("picture"))); err != nil {
		return err
	}
	return s.sendPictures(c, of)
}

func (s *api) sendPictures(c *gin.Context, of store.Album) error {
	out, err := s.pictures(c, of)
	if err == nil {
		c.JSON(http.StatusOK, out)
	}
	return err
}

package server

// This file answers the questions of the slide rule. All are plain GETs that
// change nothing.

import (
	"fmt"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/ask"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// query reads the parameters of a question; what is wrong is gathered.
type query struct {
	c    *gin.Context
	list problem.List
}

// number reads a whole number from 1 to most; absent or empty is 0, not stated.
func (q *query) number(name string, most int) int {
	text := q.c.Query(name)
	if text == "" {
		return 0
	}
	n, err := strconv.Atoi(text)
	if err != nil || n < 1 || n > most {
		q.list.Say("/"+name, fmt.Sprintf("%q is not a number from 1 to %d", text, most), "leave it empty where it is not known")
		return 0
	}
	return n
}

func (q *query) link(gen, lanes string) link.Link {
	return link.Link{Gen: quantity.Gen(q.number(gen, int(link.MaxGen))), Lanes: quantity.Lanes(q.number(lanes, 16))}
}

func (s *api) ask(c *gin.Context) error {
	q := query{c: c}
	var out any
	var answer ask.Reply
	var err error
	text := c.Query("text")
	switch c.Param("question") {
	case "link":
		answer = ask.Link(q.link("gen", "lanes"), q.link("gen2", "lanes2"))
	case "uplink":
		answer, err = ask.Uplink(q.link("upGen", "upLanes"), q.link("gen", "lanes"), q.number("count", 64))
	case "capacity":
		answer, err = ask.Capacity(text)
	case "sum":
		answer, err = ask.Sum(text)
	case "array":
		answer, err = ask.Array(text, rig.Level(c.Query("level")))
	case "copy":
		answer, err = ask.Copy(text, c.Query("mean"), c.Query("reads"), c.Query("writes"), c.Query("on") != "platter")
	case "sounds":
		answer, err = ask.Sounds(text, c.Query("room"))
	case "prices":
		answer, err = ask.Prices(text)
	case "code":
		answer, err = ask.Code(text)
	case "part":
		answer, err = ask.Part(text)
	case "keys":
		var protocols []link.Protocol
		for _, p := range strings.FieldsFunc(c.Query("protocols"), func(r rune) bool { return r == ',' }) {
			protocols = append(protocols, link.Protocol(p))
		}
		out = s.Language.Keys(part.Key(c.Query("key")), protocols)
	case "population":
		sheet, serr := s.Data.Sheet(c.Request.Context(), machine.ID(c.Query("sheet")))
		if serr != nil {
			return serr
		}
		var p ask.Populated
		if p, err = ask.Population(&sheet.Sheet, text); err == nil {
			out = s.Language.Population(&p)
		}
	default:
		q.list.Say("", fmt.Sprintf("%q is no question", c.Param("question")), "ask link, uplink, capacity, sum, array, copy, sounds, prices, code, part, keys or population")
	}
	if err := q.list.Err(); err != nil {
		return err
	}
	switch {
	case err != nil:
		out = s.Language.Cannot(err)
	case out == nil:
		out = s.Language.Reply(&answer)
	}
	c.JSON(http.StatusOK, out)
	return nil
}

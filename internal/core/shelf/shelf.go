// Package shelf is what the shop has in stock: parts with count, price,
// condition and serial numbers, and the list of them as CSV.
package shelf

import (
	"cmp"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shorthand"
)

// Grade is the state of a part.
type Grade string

// New in its box, used, or used and tested.
const (
	New    Grade = "new"
	Used   Grade = "used"
	Tested Grade = "tested"
)

// Values lists the conditions for the formats.
func (Grade) Values() []string { return []string{string(New), string(Used), string(Tested)} }

// Cents is a price in hundredths of the shop's currency. Zero is "not stated".
type Cents int64

// String prints "42.50".
func (c Cents) String() string {
	if c <= 0 {
		return ""
	}
	return fmt.Sprintf("%d.%02d", c/100, c%100)
}

// ParseCents reads "42", "42.5" or "42.50".
func ParseCents(s string) (Cents, error) {
	whole, frac, _ := strings.Cut(strings.TrimSpace(s), ".")
	n, err := strconv.ParseInt(whole, 10, 40)
	if err != nil || n < 0 || len(frac) > 2 {
		return 0, fact.Err(NoPrice, s)
	}
	f := int64(0)
	if frac != "" {
		if f, err = strconv.ParseInt((frac + "0")[:2], 10, 16); err != nil || f < 0 {
			return 0, fact.Err(NoPrice, s)
		}
	}
	return Cents(n*100 + f), nil
}

// The most pieces, and serial numbers, of one kind of part.
const (
	Most        = 100_000
	MostSerials = 1000
)

// Stock is one kind of part on the shelf.
type Stock struct {
	Part      part.Part `json:"part"`
	Count     int       `json:"count" jsonschema:"minimum=0,maximum=100000"`
	Price     Cents     `json:"priceCents,omitzero" jsonschema:"minimum=1"`
	Condition Grade     `json:"condition,omitempty"`
	Serials   []string  `json:"serials,omitempty" jsonschema:"maxItems=1000"`
}

// columns is the head of a shelf's CSV. Shorthand describes drives and modules; a
// row without it is about a part that is known by its id.
var columns = []string{"id", "name", "number", "shorthand", "count", "price", "condition", "serials"}

// RowProblem is what is wrong with one field of a CSV.
type RowProblem struct {
	Line   int    `json:"line"`   // of the file, the first is 1
	Column string `json:"column"` // by its head
	Says   string `json:"says"`   // filled in by say

	Fact fact.Fact `json:"-"`
}

// Error prints line, column and fault.
func (p RowProblem) Error() string {
	return fmt.Sprintf("line %d, %s: %s", p.Line, p.Column, cmp.Or(p.Says, p.Fact.String()))
}

// WriteCSV writes entries with a head line.
func WriteCSV(w io.Writer, entries []Stock) error {
	c := csv.NewWriter(w)
	if err := c.Write(columns); err != nil {
		return err
	}
	for _, e := range entries {
		p := &e.Part
		row := []string{string(p.ID), p.Name, p.Number, shorthand.Write(p), strconv.Itoa(e.Count), e.Price.String(), string(e.Condition), strings.Join(e.Serials, " ")}
		for i := range row {
			row[i] = harmless(row[i])
		}
		if err := c.Write(row); err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}

// formula begins what a spreadsheet would carry out. Such a field is written with an
// apostrophe before it, which ReadCSV takes off again; one that begins with an apostrophe
// gets a second.
const formula = "=+-@\t\r'"

func harmless(field string) string {
	if field != "" && strings.ContainsRune(formula, rune(field[0])) {
		return "'" + field
	}
	return field
}

func asWritten(field string) string {
	if rest, ok := strings.CutPrefix(field, "'"); ok && rest != "" && strings.ContainsRune(formula, rune(rest[0])) {
		return rest
	}
	return field
}

// ReadCSV reads entries. Good rows are returned beside all that is wrong with the
// others, each named by line and column; known finds parts by id. A file whose
// head is not a shelf's is an error.
func ReadCSV(r io.Reader, known func(part.ID) (part.Part, bool)) ([]Stock, []RowProblem, error) {
	c := csv.NewReader(r)
	c.FieldsPerRecord = -1
	head, err := c.Read()
	if err != nil {
		return nil, nil, fact.Err(NoHeadLine, strings.Join(columns, ","))
	}
	at := map[string]int{}
	for i, name := range head {
		at[strings.ToLower(strings.TrimSpace(strings.TrimPrefix(name, "\ufeff")))] = i
	}
	for _, need := range []string{"id", "count"} {
		if _, ok := at[need]; !ok {
			return nil, nil, fact.Err(NoColumn, need, strings.Join(columns, ","))
		}
	}
	entries, problems := []Stock{}, []RowProblem{}
	for {
		row, err := c.Read()
		if errors.Is(err, io.EOF) {
			return entries, problems, nil
		}
		if err != nil {
			line := 0
			var p *csv.ParseError
			if errors.As(err, &p) {
				line = p.Line
			}
			problems = append(problems, RowProblem{Line: line, Fact: fact.Of(NotCSV, err.Error())})
			return entries, problems, nil // what follows cannot be told apart any more
		}
		line, _ := c.FieldPos(0)
		e, wrong := readRow(row, at, line, known)
		if len(wrong) > 0 {
			problems = append(problems, wrong...)
			continue
		}
		entries = append(entries, e)
	}
}

func readRow(row []string, at map[string]int, line int, known func(part.ID) (part.Part, bool)) (Stock, []RowProblem) {
	var e Stock
	var wrong []RowProblem
	field := func(name string) string {
		if i, ok := at[name]; ok && i < len(row) {
			return asWritten(strings.TrimSpace(row[i]))
		}
		return ""
	}
	bad := func(column string, why fact.Fact) {
		wrong = append(wrong, RowProblem{Line: line, Column: column, Fact: why})
	}

	id := part.ID(field("id"))
	old, isKnown := known(id)
	switch text := field("shorthand"); {
	case text != "":
		s, list := shorthand.Keep(text)
		if len(list) > 0 {
			bad("shorthand", list[0].Fact)
			break
		}
		e.Part = s.Part
		if isKnown && shorthand.Write(&old) == shorthand.Write(&s.Part) {
			e.Part = old // keeps what shorthand does not say
		}
	case isKnown:
		e.Part = old
	default:
		bad("shorthand", fact.Of(NoSuchPart, id))
	}
	if id != "" {
		if err := id.Check(); err != nil {
			bad("id", fact.From(err))
		}
		e.Part.ID = id
	}
	if name := field("name"); name != "" {
		e.Part.Name = name
	}
	if number := field("number"); number != "" {
		e.Part.Number = number
	}
	for _, p := range e.Part.Validate() {
		if len(wrong) == 0 {
			bad("shorthand", p.Fact)
		}
	}
	n, err := strconv.Atoi(field("count"))
	if err != nil || n < 0 || n > Most {
		bad("count", fact.Of(NoCount, field("count")))
	}
	e.Count = n
	if text := field("price"); text != "" {
		if e.Price, err = ParseCents(text); err != nil {
			bad("price", fact.From(err))
		}
	}
	switch c := Grade(strings.ToLower(field("condition"))); c {
	case "", New, Used, Tested:
		e.Condition = c
	default:
		bad("condition", fact.Of(NoCondition, field("condition")))
	}
	e.Serials = strings.Fields(field("serials"))
	return e, wrong
}

// perPack is how many screws a pack on the shelf has: what one drive takes.
const perPack = 4

// Holds is how many of a wanted fitting a kind of stock gives; none where it is something
// else.
func Holds(s *Stock, want *part.Fitting) int {
	f := s.Part.Fitting
	switch {
	case f == nil || f.Kind != want.Kind,
		want.Thread != "" && f.Thread != want.Thread,
		want.End != "" && f.End != want.End,
		want.From != "" && f.From != want.From,
		want.To != "" && f.To != want.To,
		want.Holds != "" && f.Holds != "" && f.Holds != want.Holds:
		return 0
	case f.Kind == part.Screws:
		return perPack * s.Count
	}
	return s.Count
}

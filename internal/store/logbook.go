package store

// This file is the logbook: every line of every journal by its time and by its words, and the
// figures of the shop. Both are made from journals and documents after these are kept, and can be
// made anew at any time.

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/logbook"
	"deepbay/internal/core/machine"
)

// LogKind is what a line of the logbook is about.
type LogKind string

// The three journals.
const (
	OfJob   LogKind = "job"
	OfSheet LogKind = "sheet"
	OfPart  LogKind = "part"
)

// Values lists the kinds for the formats.
func (LogKind) Values() []string { return []string{string(OfJob), string(OfSheet), string(OfPart)} }

// logKinds is where each kind stands: its journal, and a statement for what a thing is called, what
// else is printed on it, and the model.
var logKinds = map[LogKind]struct {
	*journaled
	called string
}{
	OfJob:   {jobJournal, `SELECT json_extract(doc, '$.title'), concat_ws(' ', json_extract(doc, '$.tag'), json_extract(doc, '$.owner')), json_extract(doc, '$.sheet.id') FROM jobs WHERE id = ? AND json_valid(doc)`},
	OfSheet: {sheetJournal, `SELECT name, '', id FROM sheets WHERE id = ?`},
	OfPart:  {shelfJournal, `SELECT name, COALESCE(json_extract(doc, '$.number'), ''), '' FROM parts WHERE id = ? AND json_valid(doc)`},
}

// LogLine is one line of the logbook.
type LogLine struct {
	Kind   LogKind
	Thing  string // its id
	Called string
	Entry
}

// Words says what a line tells, of a job as it is now; of one that cannot be read, a sheet or a
// part it is nil.
type Words func(j *job.Job, e Entry) string

// atOnceLogged is how many lines are taken into the logbook before others who write have their
// turn.
const atOnceLogged = 200

// CatchUp takes lines into the logbook that are not there yet, most of them at most, and says how
// many are left. words says what a line tells.
func (s *Store) CatchUp(ctx context.Context, words Words, most int) (left int, err error) {
	for most > 0 {
		n, err := s.catchUp(ctx, words, min(most, atOnceLogged))
		if err != nil {
			return 0, fmt.Errorf("logbook: %w", err)
		}
		if n == 0 {
			return 0, nil
		}
		most -= n
	}
	err = s.db.QueryRowContext(ctx, `SELECT count(*) FROM unlogged`).Scan(&left)
	return left, err
}

// logRow is a line on its way into the logbook.
type logRow struct {
	kind            LogKind
	thing           string
	revision        int
	at              time.Time
	who, tag, words string
}

func (s *Store) catchUp(ctx context.Context, words Words, most int) (int, error) {
	rows, err := s.unlogged(ctx, most)
	if err != nil || len(rows) == 0 {
		return 0, err
	}
	jobs := map[job.ID]*job.Job{}
	for i := range rows {
		r := &rows[i]
		id := job.ID(r.thing)
		if _, read := jobs[id]; r.kind == OfJob && !read {
			k, err := s.Job(ctx, id)
			switch {
			case err == nil:
				jobs[id] = &k.Job
			case !errors.Is(err, ErrNotFound) && isDamaged(err) != nil:
				return 0, err
			default:
				jobs[id] = nil
			}
		}
		var of *job.Job
		if r.kind == OfJob {
			of = jobs[id]
		}
		if err := s.tell(ctx, r, func(e Entry) string { return words(of, e) }); err != nil {
			return 0, err
		}
	}
	figures := map[job.ID][]logbook.Figure{}
	for id, j := range jobs {
		if j != nil {
			figures[id] = logbook.Figures(j)
		}
	}
	return len(rows), s.write(ctx, func(tx *sql.Tx) error {
		for i := range rows {
			if err := log(ctx, tx, &rows[i]); err != nil {
				return err
			}
		}
		for id, j := range jobs {
			if err := putFigures(ctx, tx, id, j, figures[id]); err != nil {
				return err
			}
		}
		return nil
	})
}

// unlogged is lines that are not in the logbook.
func (s *Store) unlogged(ctx context.Context, most int) ([]logRow, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT kind, thing, revision FROM unlogged LIMIT ?`, most)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []logRow
	for rows.Next() {
		var r logRow
		if err := rows.Scan(&r.kind, &r.thing, &r.revision); err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, rows.Err()
}

// tell finds what a line is found by. One that is damaged, or whose thing is, is found by less.
func (s *Store) tell(ctx context.Context, r *logRow, words func(Entry) string) error {
	list, err := s.entry(ctx, r.kind, r.thing, r.revision)
	if err != nil || len(list) == 0 {
		return err
	}
	called, printed, model, err := s.called(ctx, r.kind, r.thing)
	if err != nil {
		return err
	}
	r.at, r.who = list[0].At, fact.Fold(list[0].By)
	r.tag = strings.Join([]string{tagKind(r.kind), tagThing(r.thing), tagModel(model)}, " ")
	r.words = strings.Join(tokens(words(list[0])+" "+called+" "+printed), " ")
	return nil
}

// entry is the line of a journal, none where it left.
func (s *Store) entry(ctx context.Context, kind LogKind, thing string, revision int) ([]Entry, error) {
	of, is := logKinds[kind]
	if !is {
		return nil, nil
	}
	return s.entries(ctx, of.sql(`SELECT revision, at, by, says, deed, seal FROM JOURNAL WHERE OWNER = ?1 AND revision = ?2`), thing, revision)
}

// called is what a thing is called, what else is printed on it, and its model; nothing where it
// left, or cannot be read.
func (s *Store) called(ctx context.Context, kind LogKind, thing string) (name, printed, model string, err error) {
	var n, p, m sql.NullString
	if err = s.db.QueryRowContext(ctx, logKinds[kind].called, thing).Scan(&n, &p, &m); errors.Is(err, sql.ErrNoRows) {
		err = nil
	}
	return n.String, p.String, m.String, err
}

// tagKind, tagThing and tagModel are single words, so that filters are asked of the index.
func tagKind(k LogKind) string   { return "KIND" + fact.Fold(string(k)) }
func tagThing(id string) string  { return "THING" + fact.Fold(id) }
func tagModel(id string) string  { return "MODEL" + fact.Fold(id) }
func apart(r rune) bool          { return !unicode.IsLetter(r) && !unicode.IsDigit(r) }
func quotedWord(s string) string { return `"` + s + `"` }
func earliest(t time.Time) int64 { return max(0, min(t.UnixMilli(), 1<<46)) << countBits }

// countBits is how many lines may have one millisecond.
const countBits = 16

// tokens is the words of a text as the index has them. What has dashes or dots is found whole, and
// by its pieces.
func tokens(text string) []string {
	var out []string
	for _, w := range strings.Fields(text) {
		whole := fact.Fold(w)
		if whole == "" {
			continue
		}
		out = append(out, whole)
		if pieces := strings.FieldsFunc(w, apart); len(pieces) > 1 {
			for _, p := range pieces {
				out = append(out, fact.Fold(p))
			}
		}
	}
	return out
}

// log puts a line into the logbook, unless somebody did meanwhile, or it left.
func log(ctx context.Context, tx *sql.Tx, r *logRow) error {
	done, err := tx.ExecContext(ctx, `DELETE FROM unlogged WHERE kind = ? AND thing = ? AND revision = ?`, r.kind, r.thing, r.revision)
	if err != nil {
		return err
	}
	if n, err := done.RowsAffected(); err != nil || n == 0 || r.tag == "" {
		return err
	}
	first := earliest(r.at)
	_, err = tx.ExecContext(ctx, `INSERT OR IGNORE INTO logged (number, kind, thing, revision, who, tag, words)
		SELECT COALESCE(max(number) + 1, ?1), ?3, ?4, ?5, ?6, ?7, ?8 FROM logged WHERE number BETWEEN ?1 AND ?2`,
		first, first+1<<countBits-1, r.kind, r.thing, r.revision, r.who, r.tag, r.words)
	if err != nil {
		return err
	}
	list, err := json.Marshal(strings.Fields(r.words))
	if err != nil {
		return err
	}
	_, err = tx.ExecContext(ctx, `INSERT OR IGNORE INTO logwords (word) SELECT value FROM json_each(?)`, string(list))
	return err
}

// forgetWords drops words that no line has any more.
func forgetWords(ctx context.Context, tx *sql.Tx, words []string) error {
	for _, w := range words {
		if _, err := tx.ExecContext(ctx, `DELETE FROM logwords WHERE word = ?1 AND NOT EXISTS (SELECT 1 FROM log WHERE log MATCH ?2)`, w, `words : `+quotedWord(w)); err != nil {
			return err
		}
	}
	return nil
}

// wordsOf is the words of the lines of a job.
func wordsOf(ctx context.Context, tx *sql.Tx, id job.ID) ([]string, error) {
	lines, err := column[string](ctx, tx, `SELECT words FROM logged WHERE kind = 'job' AND thing = ?`, id)
	var out []string
	for _, l := range lines {
		out = append(out, strings.Fields(l)...)
	}
	slices.Sort(out)
	return slices.Compact(out), err
}

// putFigures keeps what a job adds to the figures.
func putFigures(ctx context.Context, tx *sql.Tx, id job.ID, j *job.Job, list []logbook.Figure) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM figures WHERE job = ?`, id); err != nil {
		return err
	}
	for _, f := range list {
		if _, err := tx.ExecContext(ctx, `INSERT INTO figures (job, month, of, name, n, took, expected) SELECT id, ?2, ?3, ?4, ?5, ?6, ?7 FROM jobs WHERE id = ?1`,
			id, logbook.MonthOf(j.Closed.At), f.Of, f.Name, f.N, f.Took.Milliseconds(), f.Expected.Milliseconds()); err != nil {
			return err
		}
	}
	return nil
}

// LogQuery asks for lines of the logbook, the latest first.
type LogQuery struct {
	Words    string     // all of them are in what a line says, or on its thing
	Kind     LogKind    // "" is any
	Who      string     // "" is anybody
	Thing    string     // with its kind: one job, sheet or part
	Model    machine.ID // jobs on it, and its sheet
	From, To time.Time  // zero is without end; To is not included
	After    string     // where the page before ended, as LogPage.Next
	Most     int
}

// LogPage is a page of the logbook.
type LogPage struct {
	Lines []LogLine
	Short bool   // too many words begin as was asked: there may be more lines, which the next page looks for
	Next  string // where the next page begins; "" where this is the last
}

// ErrLogPlace is of a page that begins nowhere.
var ErrLogPlace = errors.New("there is no such place in the logbook")

// Logged lists lines of the logbook. What was not taken in yet is not there; see CatchUp.
func (s *Store) Logged(ctx context.Context, q LogQuery) (LogPage, error) {
	var out LogPage
	before := int64(1<<63 - 1)
	if !q.To.IsZero() {
		before = earliest(q.To)
	}
	if q.After != "" {
		n, err := strconv.ParseInt(q.After, 10, 64)
		if err != nil {
			return out, ErrLogPlace
		}
		before = min(before, n)
	}
	from := int64(0)
	if !q.From.IsZero() {
		from = earliest(q.From)
	}
	match, wide, none, err := s.match(ctx, &q)
	if err != nil || none {
		return out, err
	}
	most, step := q.Most+1, q.Most+1 // one more tells whether there is a next page
	if len(wide) > 0 {
		most = mostLookedAt
	}
	for looked := 0; looked < most; step *= 2 {
		n := min(step, most-looked)
		list, err := s.candidates(ctx, match, before, from, n)
		if err != nil {
			return out, fmt.Errorf("logbook: %w", err)
		}
		for i := range list {
			if len(out.Lines) == q.Most {
				out.Next = strconv.FormatInt(before, 10)
				return out, s.entriesOf(ctx, &out)
			}
			if before = list[i].number; list[i].begins(wide) {
				out.Lines = append(out.Lines, list[i].LogLine)
			}
		}
		if looked += len(list); len(list) < n {
			break
		}
		if looked >= mostLookedAt { // what is older was not looked at
			out.Next, out.Short = strconv.FormatInt(before, 10), true
		}
	}
	return out, s.entriesOf(ctx, &out)
}

// candidate is a line that the index found.
type candidate struct {
	LogLine
	number int64
	words  string
}

// begins reports that a line has a word with each of some beginnings.
func (c *candidate) begins(all []string) bool {
	return !slices.ContainsFunc(all, func(w string) bool { return !strings.Contains(" "+c.words, " "+w) })
}

// candidates is the lines that the index finds, the latest first.
func (s *Store) candidates(ctx context.Context, match string, before, from int64, most int) ([]candidate, error) {
	query, args := `SELECT number, kind, thing, revision, words FROM logged WHERE number < ? AND number >= ? ORDER BY number DESC LIMIT ?`, []any{before, from, most}
	if match != "" {
		query = `SELECT number, kind, thing, revision, words FROM (SELECT rowid AS number FROM log WHERE log MATCH ? AND rowid < ? AND rowid >= ? ORDER BY rowid DESC LIMIT ?) JOIN logged USING (number) ORDER BY number DESC`
		args = slices.Insert(args, 0, any(match))
	}
	rows, err := s.db.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []candidate
	for rows.Next() {
		var c candidate
		if err := rows.Scan(&c.number, &c.Kind, &c.Thing, &c.Revision, &c.words); err != nil {
			return nil, err
		}
		out = append(out, c)
	}
	return out, rows.Err()
}

// mostWords is how many words that begin in one way are looked for.
var mostWords = 100

// mostLookedAt is how many lines are looked at, one by one, for a beginning that more words have.
var mostLookedAt = 5000

// match is what the index is asked; "" asks it nothing, and none is that no line has such words.
// A beginning of a word stands for the words there are that begin so: as one it would have the index
// gather all their lines, where the latest few are wanted. A beginning that too many words have is
// wide: lines are looked at for it.
func (s *Store) match(ctx context.Context, q *LogQuery) (match string, wide []string, none bool, err error) {
	var all []string
	if w := fact.Fold(q.Who); w != "" {
		all = append(all, `who : `+quotedWord(w))
	}
	if q.Kind != "" {
		all = append(all, `tag : `+quotedWord(tagKind(q.Kind)))
	}
	if q.Thing != "" {
		all = append(all, `tag : `+quotedWord(tagThing(q.Thing)))
	}
	if q.Model != "" {
		all = append(all, `tag : `+quotedWord(tagModel(string(q.Model))))
	}
	for _, w := range strings.Fields(q.Words) {
		if w = fact.Fold(w); w == "" {
			continue
		}
		rows, err := s.db.QueryContext(ctx, `SELECT word FROM logwords WHERE word >= ? AND word < ? LIMIT ?`, w, w+string(unicode.MaxRune), mostWords+1)
		if err != nil {
			return "", nil, false, fmt.Errorf("logbook: %w", err)
		}
		words, err := scanned[string](rows)
		if err != nil {
			return "", nil, false, fmt.Errorf("logbook: %w", err)
		}
		if len(words) == 0 {
			return "", nil, true, nil
		}
		if len(words) > mostWords {
			wide = append(wide, w)
			continue
		}
		for i := range words {
			words[i] = quotedWord(words[i])
		}
		all = append(all, `words : (`+strings.Join(words, " OR ")+`)`)
	}
	return strings.Join(all, " AND "), wide, false, nil
}

// entriesOf reads the entries of lines from their journals, and what their things are called now.
func (s *Store) entriesOf(ctx context.Context, out *LogPage) error {
	called := map[string]string{}
	var kept []LogLine
	for _, l := range out.Lines {
		list, err := s.entry(ctx, l.Kind, l.Thing, l.Revision)
		if err != nil {
			return err
		}
		if len(list) == 0 { // it left meanwhile
			continue
		}
		k := string(l.Kind) + " " + l.Thing
		if _, known := called[k]; !known {
			if called[k], _, _, err = s.called(ctx, l.Kind, l.Thing); err != nil {
				return err
			}
		}
		l.Called, l.Entry = called[k], list[0]
		kept = append(kept, l)
	}
	out.Lines = kept
	return nil
}

// Figures is what finished jobs come to in some months.
func (s *Store) Figures(ctx context.Context, from, to logbook.Month) ([]logbook.Monthly, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT month, of, name, n, took, expected FROM sums WHERE month BETWEEN ? AND ?`, from, to)
	if err != nil {
		return nil, fmt.Errorf("figures: %w", err)
	}
	defer rows.Close()
	out := []logbook.Monthly{}
	for rows.Next() {
		var m logbook.Monthly
		var took, expected int64
		if err := rows.Scan(&m.Month, &m.Of, &m.Name, &m.N, &took, &expected); err != nil {
			return nil, fmt.Errorf("figures: %w", err)
		}
		m.Took, m.Expected = time.Duration(took)*time.Millisecond, time.Duration(expected)*time.Millisecond
		out = append(out, m)
	}
	return out, rows.Err()
}

// Carrying is the jobs that have something printed on them or their parts, a serial number or a
// tag, but for damaged ones: the latest, and no more than are read soon.
func (s *Store) Carrying(ctx context.Context, printed string) ([]job.Job, error) {
	want := fact.Fold(printed)
	if want == "" {
		return nil, nil
	}
	where, args := ``, []any{}
	if len([]rune(want)) >= shortest { // which the index knows
		where, args = `m.number IN (SELECT rowid FROM found WHERE found MATCH ?) AND `, []any{`marks : "` + want + `"`}
	}
	return list[job.Job](ctx, s, "job", `SELECT j.id, j.doc, j.sum FROM marked m JOIN jobs j ON j.id = m.job WHERE `+where+`instr(char(10) || m.marks || char(10), char(10) || ? || char(10)) > 0 ORDER BY m.number DESC LIMIT ?`, append(args, want, mostCarrying)...)
}

// mostCarrying is how many jobs one life is read from.
const mostCarrying = 200

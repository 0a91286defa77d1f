package store

// This file lists jobs, a page at a time, and finds them by anything that is printed on a
// machine or its parts.

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
)

// Stand is which revision a job is at; whoever knows what to say of it need not read it.
type Stand struct {
	ID       job.ID
	Revision int
	Updated  time.Time
}

// Is reports the same revision. A job that was deleted and brought in again counts from
// one again, so the time tells them apart.
func (s Stand) Is(o Stand) bool {
	return s.ID == o.ID && s.Revision == o.Revision && s.Updated.Equal(o.Updated)
}

// Page asks for part of the list of jobs: open ones first, the latest change first.
type Page struct {
	Query string // leaves those that carry it in anything printed on them, whatever the blanks and dashes
	After string // where the page before ended, as Listed.Next; "" is the beginning
	Most  int    // how many; 0 is all there are
}

// Listed is a page of the list of jobs.
type Listed struct {
	Stands       []Stand
	Next         string // where the next page begins; "" where this is the last
	Open, Closed int    // of the whole list
	Short        bool   // more jobs may carry what was asked for: these are the latest
}

const (
	// MostFound is how many open and how many closed jobs a search finds at most.
	MostFound = 300
	// mostLookedThrough is how many jobs, the latest ones, are looked through letter by
	// letter where the index cannot tell: it knows nothing shorter than shortest.
	mostLookedThrough = 10_000
	shortest          = 3
)

// ErrPlace is of a page that begins nowhere.
var ErrPlace = errors.New("there is no such place in the list of jobs")

// Jobs lists where jobs stand.
func (s *Store) Jobs(ctx context.Context, p Page) (Listed, error) {
	var out Listed
	where, args := []string{"1"}, []any{}
	if fact.Fold(p.Query) == "" {
		if err := s.db.QueryRowContext(ctx, `SELECT open, total - open FROM (SELECT (SELECT count(*) FROM jobs WHERE open = 1) AS open, (SELECT count(*) FROM jobs) AS total)`).Scan(&out.Open, &out.Closed); err != nil {
			return out, fmt.Errorf("list jobs: %w", err)
		}
	} else {
		ids, err := s.find(ctx, p.Query, &out)
		if err != nil {
			return out, fmt.Errorf("find jobs: %w", err)
		}
		list, err := json.Marshal(ids)
		if err != nil {
			return out, err
		}
		where, args = append(where, "id IN (SELECT value FROM json_each(?))"), append(args, string(list))
	}
	if p.After != "" {
		at := strings.SplitN(p.After, " ", 3)
		if len(at) != 3 || at[0] != "0" && at[0] != "1" {
			return out, ErrPlace
		}
		open := int(at[0][0] - '0')
		where = append(where, "open <= ? AND (open < ? OR updated < ? OR updated = ? AND id > ?)")
		args = append(args, open, open, at[1], at[1], at[2])
	}
	most := -1
	if p.Most > 0 {
		most = p.Most + 1 // one more tells whether there is a next page
	}
	rows, err := s.db.QueryContext(ctx, `SELECT `+standingColumns+` FROM jobs j WHERE `+strings.Join(where, " AND ")+
		` ORDER BY open DESC, updated DESC, id LIMIT ?`, append(args, most)...)
	if err != nil {
		return out, fmt.Errorf("list jobs: %w", err)
	}
	defer rows.Close()
	last := ""
	for rows.Next() {
		if p.Most > 0 && len(out.Stands) == p.Most {
			out.Next = last
			break
		}
		var r standing
		if err := rows.Scan(r.into()...); err != nil {
			return out, fmt.Errorf("list jobs: %w", err)
		}
		var damaged *Damaged // it stands in the list, and nowhere else
		if err := r.unseal(s); err != nil && !errors.As(err, &damaged) {
			return out, fmt.Errorf("list jobs: %w", err)
		}
		out.Stands, last = append(out.Stands, r.Stand), r.place()
	}
	return out, rows.Err()
}

// find lists the ids of jobs that carry a query: joined, or each word of it.
func (s *Store) find(ctx context.Context, query string, out *Listed) ([]string, error) {
	whole := fact.Fold(query)
	var index, letters []string // words that the index knows, and shorter ones
	for _, w := range strings.Fields(query) {
		switch w = fact.Fold(w); {
		case utf8.RuneCountInString(w) >= shortest:
			index = append(index, `"`+w+`"`)
		case w != "":
			letters = append(letters, w)
		}
	}
	match := `"` + whole + `"`
	if len(index) > 0 {
		match += ` OR (` + strings.Join(index, " AND ") + `)`
	}
	match = `marks : (` + match + `)`
	filter, args := carry(whole, letters)
	if len(index) == 0 {
		return s.findLatest(ctx, whole, match, filter, args, out)
	}
	most := mostLookedThrough
	if len(letters) == 0 { // the index knows all of it
		filter, args, most = "1", nil, MostFound+1
	}
	ask := func(match string) ([]string, error) {
		rows, err := s.db.QueryContext(ctx, `SELECT job, stage = 'OPEN' FROM (SELECT rowid AS number FROM found WHERE found MATCH ? ORDER BY rowid DESC LIMIT ?) JOIN marked USING (number) WHERE `+filter+` LIMIT ?`,
			slices.Concat([]any{match, most}, args, []any{MostFound + 1})...)
		if err != nil {
			return nil, err
		}
		ids, err := found(rows, out)
		if err == nil && len(letters) > 0 {
			err = s.beyond(ctx, out, `found WHERE found MATCH ?`, match)
		}
		return ids, err
	}
	ids, err := ask(match)
	if err != nil || !out.Short {
		return ids, err
	}
	*out, ids = Listed{}, nil // so many that open ones are asked for first
	for _, stage := range []string{"OPEN", "CLOSED"} {
		more, err := ask(`stage : "` + stage + `" AND ` + match)
		if err != nil {
			return nil, err
		}
		ids = append(ids, more...)
	}
	return ids, nil
}

// carry is the condition that marks carry a query as a whole, or all of its words.
func carry(whole string, words []string) (string, []any) {
	const is = "instr(marks, ?) > 0"
	filter, args := is, []any{whole}
	if len(words) > 1 || len(words) == 1 && words[0] != whole {
		filter = "(" + is + " OR " + strings.Join(slices.Repeat([]string{is}, len(words)), " AND ") + ")"
		for _, w := range words {
			args = append(args, w)
		}
	}
	return filter, args
}

// findLatest looks through the latest jobs for words that are too short for the index, and
// asks that for all of them together where it can.
func (s *Store) findLatest(ctx context.Context, whole, match, filter string, args []any, out *Listed) ([]string, error) {
	query := `SELECT job, stage = 'OPEN' FROM (SELECT job, stage, marks FROM marked ORDER BY number DESC LIMIT ?) WHERE ` + filter
	args = append([]any{mostLookedThrough}, args...)
	if utf8.RuneCountInString(whole) >= shortest {
		query += ` UNION SELECT job, stage = 'OPEN' FROM (SELECT rowid AS number FROM found WHERE found MATCH ? LIMIT ?) JOIN marked USING (number)`
		args = append(args, match, MostFound+1)
	}
	rows, err := s.db.QueryContext(ctx, query+` LIMIT ?`, append(args, MostFound+1)...)
	if err != nil {
		return nil, err
	}
	ids, err := found(rows, out)
	if err == nil {
		err = s.beyond(ctx, out, `marked`)
	}
	return ids, err
}

// beyond says of a list that it is short where there are more jobs than were looked through.
func (s *Store) beyond(ctx context.Context, out *Listed, among string, args ...any) error {
	n := 0
	err := s.db.QueryRowContext(ctx, `SELECT count(*) FROM (SELECT 1 FROM `+among+` LIMIT ?)`, append(args, mostLookedThrough+1)...).Scan(&n)
	out.Short = out.Short || n > mostLookedThrough
	return err
}

// found reads ids that were found, and counts them.
func found(rows *sql.Rows, out *Listed) ([]string, error) {
	defer rows.Close()
	ids := []string{}
	for rows.Next() {
		var id string
		var open bool
		if err := rows.Scan(&id, &open); err != nil {
			return nil, err
		}
		if len(ids) == MostFound {
			out.Short = true
			break
		}
		ids = append(ids, id)
		if open {
			out.Open++
		} else {
			out.Closed++
		}
	}
	return ids, rows.Err()
}

// Stand is where one job stands.
func (s *Store) Stand(ctx context.Context, id job.ID) (Stand, error) {
	var r standing
	err := s.db.QueryRowContext(ctx, `SELECT `+standingColumns+` FROM jobs j WHERE id = ?`, id).Scan(r.into()...)
	if errors.Is(err, sql.ErrNoRows) {
		return r.Stand, fmt.Errorf("job %q: %w", id, ErrNotFound)
	} else if err == nil {
		err = r.unseal(s)
	}
	return r.Stand, err
}

// standing is what the table of jobs has beside documents.
type standing struct {
	Stand
	open    int
	updated string
	seal    sql.NullString
}

const standingColumns = `j.id, j.revision, j.updated, j.open, j.seal`

// into is where those columns are read to, and more after them.
func (r *standing) into(more ...any) []any {
	return append([]any{&r.ID, &r.Revision, &r.updated, &r.open, &r.seal}, more...)
}

// place is where the job stands in the list.
func (r *standing) place() string { return fmt.Sprintf("%d %s %s", r.open, r.updated, r.ID) }

// unseal holds what was read against its digest. Of a *Damaged job nothing but the id is told.
func (r *standing) unseal(s *Store) (err error) {
	if err := unsealRow(r.seal, string(r.ID), r.Revision, r.open, r.updated); err != nil {
		r.Stand = Stand{ID: r.ID}
		return s.damaged("job", string(r.ID), err)
	}
	r.Updated, err = time.Parse(timeLayout, r.updated)
	return err
}

// Users lists the latest jobs that have a part, at most so many of each.
func (s *Store) Users(ctx context.Context, parts []part.ID, most int) (map[part.ID][]Stand, error) {
	list, err := json.Marshal(parts)
	if err != nil {
		return nil, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT `+standingColumns+`, p.value FROM json_each(?) p
		JOIN marked m ON m.number IN (SELECT number FROM uses WHERE part = p.value ORDER BY number DESC LIMIT ?)
		JOIN jobs j ON j.id = m.job ORDER BY m.number DESC`, string(list), most)
	if err != nil {
		return nil, fmt.Errorf("which jobs have parts of the shelf: %w", err)
	}
	defer rows.Close()
	out := map[part.ID][]Stand{}
	for rows.Next() {
		var id part.ID
		var r standing
		if err := rows.Scan(r.into(&id)...); err != nil {
			return nil, fmt.Errorf("which jobs have parts of the shelf: %w", err)
		}
		var damaged *Damaged
		if err := r.unseal(s); err != nil && !errors.As(err, &damaged) {
			return nil, fmt.Errorf("which jobs have parts of the shelf: %w", err)
		}
		out[id] = append(out[id], r.Stand)
	}
	return out, rows.Err()
}

// mark keeps what a job is found by, and which parts it has.
func mark(ctx context.Context, tx *sql.Tx, j *job.Job) error {
	stage := "OPEN"
	if j.Closed != nil {
		stage = "CLOSED"
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO marked (job, stage, marks) VALUES (?1, ?2, ?3)
		ON CONFLICT (job) DO UPDATE SET stage = ?2, marks = ?3 WHERE stage IS NOT ?2 OR marks IS NOT ?3`, j.ID, stage, marks(j)); err != nil {
		return fmt.Errorf("marks: %w", err)
	}
	ids := make([]part.ID, len(j.Parts))
	for i := range j.Parts {
		ids[i] = j.Parts[i].ID
	}
	list, err := json.Marshal(ids)
	if err != nil {
		return err
	}
	for _, q := range []string{
		`DELETE FROM uses WHERE number = (SELECT number FROM marked WHERE job = ?) AND part NOT IN (SELECT value FROM json_each(?))`,
		`INSERT OR IGNORE INTO uses (number, part) SELECT number, value FROM (SELECT number FROM marked WHERE job = ?), json_each(?)`,
	} {
		if _, err := tx.ExecContext(ctx, q, j.ID, string(list)); err != nil {
			return fmt.Errorf("parts in use: %w", err)
		}
	}
	return nil
}

func marks(j *job.Job) string { return strings.Join(folded(j.Marks()), "\n") }

func folded(m []string) []string {
	for i := range m {
		m[i] = fact.Fold(m[i])
	}
	return m
}

// marksHold reports whether marks that were kept have all that is printed on a job. How its
// parts are put into words is another program's affair, as it was when they were kept.
func marksHold(kept string, j *job.Job) bool {
	lines := strings.Split(kept, "\n")
	return !slices.ContainsFunc(folded(j.Printed()), func(m string) bool { return !slices.Contains(lines, m) })
}

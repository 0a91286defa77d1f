package job

import "deepbay/internal/core/fit"

// CheckFormat and CheckVersion head the answer of `deepbay check --json`.
const (
	CheckFormat  = "deepbay/check"
	CheckVersion = 1
)

// Check is the judgement of a job's plan, for programs.
type Check struct {
	Format  string       `json:"format" jsonschema:"enum=deepbay/check"`
	Version int          `json:"version" jsonschema:"enum=1"`
	Job     ID           `json:"job"`
	Title   string       `json:"title"`
	Stops   bool         `json:"stops"`
	Answer  fit.Resolved `json:"answer"`
}

// CheckOf judges a job's plan.
func CheckOf(j *Job) Check {
	b := j.PlannedRig()
	r := fit.Resolve(&b)
	return Check{CheckFormat, CheckVersion, j.ID, j.Title, r.Stops(), r}
}

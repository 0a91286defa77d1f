module deepbay/bench

go 1.26.0

require (
	deepbay v0.0.0
	github.com/crillab/gophersat v1.4.0
)

replace deepbay => ../

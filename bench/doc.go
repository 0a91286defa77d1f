// Package bench gives the planner's problems to a general solver, a pure-Go MaxSAT
// one, and compares optimum and time. It is a module of its own, so that the product
// does not depend on the solver.
package bench

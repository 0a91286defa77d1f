package main

import (
	"fmt"

	"deepbay/internal/core/say"
)

// language is what every sentence passes that is printed.
var language = say.Plain

// words is a sentence of the program itself.
func words(format string, args ...any) string { return language(fmt.Sprintf(format, args...)) }

//go:build js && wasm

// Command fieldjudge is the judgement of check items for the browser: the same
// code that decides on the server says on a tablet without network what an
// entry means. It gives the page one function, mainstayJudge(question), which
// takes and returns JSON.
package main

import (
	"syscall/js"

	"mainstay/core/checks"
)

func main() {
	js.Global().Set("mainstayJudge", js.FuncOf(func(_ js.Value, args []js.Value) any {
		if len(args) != 1 || args[0].Type() != js.TypeString {
			return `{"unable":true,"sentence":"Nothing was asked."}`
		}
		return checks.AnswerJSON(args[0].String())
	}))
	select {} // the page calls as long as it lives
}

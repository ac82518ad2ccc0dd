// Command mutate seeds faults in the core, one at a time, and counts how many
// the tests catch: comparisons turned, constants moved, negations dropped. It
// changes no file: the compiler is given the faulty one in the place of the
// other.
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
)

// fault is one place in a file, and what is put there.
type fault struct {
	file     string
	line     int
	at, long int // bytes of the file
	was, now string
	wrong    string // the line with the fault in it
}

func main() {
	n := flag.Int("n", 100, "how many faults")
	seed := flag.Uint64("seed", 1, "which ones")
	flag.Parse()
	all, err := faults("core")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	// Tests that fail anyway would catch everything.
	if out, err := exec.Command("go", "test", "./core/...").CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "the tests fail without any fault; mend them first\n%s", out)
		os.Exit(1)
	}
	same, err := equivalents("mutate/equivalent.txt", all)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	r := rand.New(rand.NewPCG(*seed, 0))
	r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	caught, alike, tried := 0, 0, 0
	for _, f := range all {
		if tried == *n {
			break
		}
		if why := same[f.key()]; why != "" {
			tried++
			alike++
			fmt.Printf("equivalent: %s:%d %s to %q: %s\n", f.file, f.line, f.was, f.now, why)
			continue
		}
		switch found, err := f.caught(); {
		case err != nil:
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		case found == noProgram:
		case found == missed:
			tried++
			fmt.Printf("not caught: %s:%d %s to %q\n", f.file, f.line, f.was, f.now)
		default:
			tried++
			caught++
		}
	}
	fmt.Printf("%d of %d faults caught, %d equivalent (of %d places)\n", caught, tried, alike, len(all))
}

func (f fault) key() string { return f.file + "\t" + f.wrong }

// equivalents reads the faults that change nothing anybody could see, with the
// reason for each: file, the line as it is with the fault, and why, parted by
// tabs. One that can no longer be seeded, or that stands for several, is refused, so
// that the list stays true.
func equivalents(path string, all []fault) (map[string]string, error) {
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	known, out := map[string]int{}, map[string]string{}
	for _, f := range all {
		known[f.key()]++
	}
	for i, l := range strings.Split(strings.TrimSpace(string(text)), "\n") {
		p := strings.Split(l, "\t")
		if len(p) != 3 || p[2] == "" || known[p[0]+"\t"+p[1]] != 1 {
			return nil, fmt.Errorf("%s:%d: this is not one fault that can be seeded, but %d: %s", path, i+1,
				known[strings.Join(p[:min(2, len(p))], "\t")], l)
		}
		out[p[0]+"\t"+p[1]] = p[2]
	}
	return out, nil
}

// faults lists every place under root where a fault can be seeded.
func faults(root string) ([]fault, error) {
	var out []fault
	err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || filepath.Ext(path) != ".go" || strings.HasSuffix(path, "_test.go") {
			return err
		}
		fs, err := inFile(path)
		out = append(out, fs...)
		return err
	})
	return out, err
}

var turned = map[token.Token]token.Token{token.LSS: token.LEQ, token.LEQ: token.LSS, token.GTR: token.GEQ,
	token.GEQ: token.GTR, token.EQL: token.NEQ, token.NEQ: token.EQL,
	token.LAND: token.LOR, token.LOR: token.LAND, token.ADD: token.SUB, token.SUB: token.ADD}

func inFile(path string) ([]fault, error) {
	files := token.NewFileSet()
	text, err := os.ReadFile(path)
	if err != nil {
		return nil, err
	}
	f, err := parser.ParseFile(files, path, text, 0)
	if err != nil {
		return nil, err
	}
	var out []fault
	place := func(pos token.Pos, was, now string) {
		p := files.Position(pos)
		line := string(text[p.Offset-p.Column+1:])
		line, _, _ = strings.Cut(line, "\n")
		at := p.Column - 1
		out = append(out, fault{path, p.Line, p.Offset, len(was), was, now,
			strings.TrimSpace(line[:at] + now + line[at+len(was):])})
	}
	ast.Inspect(f, func(node ast.Node) bool {
		switch x := node.(type) {
		case *ast.BinaryExpr:
			if to, ok := turned[x.Op]; ok {
				place(x.OpPos, x.Op.String(), to.String())
			}
		case *ast.UnaryExpr:
			if x.Op == token.NOT {
				place(x.OpPos, "!", "")
			}
		case *ast.GenDecl:
			for _, s := range x.Specs {
				if c, ok := s.(*ast.ValueSpec); ok && x.Tok == token.CONST {
					for _, v := range c.Values {
						if l, ok := v.(*ast.BasicLit); ok {
							if to := moved(l); to != "" {
								place(l.Pos(), l.Value, to)
							}
						}
					}
				}
			}
		}
		return true
	})
	return out, nil
}

// moved is a number a little off; "" for what is none.
func moved(l *ast.BasicLit) string {
	v, err := strconv.ParseFloat(strings.ReplaceAll(l.Value, "_", ""), 64)
	switch {
	case err != nil || l.Kind == token.STRING || v == 0:
		return ""
	case l.Kind == token.FLOAT:
		return strconv.FormatFloat(v*1.1, 'g', -1, 64)
	}
	return strconv.FormatFloat(v+1, 'f', -1, 64)
}

type outcome int

const (
	missed outcome = iota
	seen
	noProgram // it does not compile: no fault
)

// caught runs the tests with the fault in the place of the file: those of its
// package first, then all of the core.
func (f fault) caught() (outcome, error) {
	dir, err := os.MkdirTemp("", "mutate")
	if err != nil {
		return missed, err
	}
	defer func() { _ = os.RemoveAll(dir) }()
	text, err := os.ReadFile(f.file)
	if err != nil {
		return missed, err
	}
	abs, err := filepath.Abs(f.file)
	if err != nil {
		return missed, err
	}
	bad, list := filepath.Join(dir, "bad.go"), filepath.Join(dir, "overlay.json")
	overlay, err := json.Marshal(map[string]any{"Replace": map[string]string{abs: bad}})
	if err != nil {
		return missed, err
	}
	wrong := string(text[:f.at]) + f.now + string(text[f.at+f.long:])
	if err := errors.Join(os.WriteFile(bad, []byte(wrong), 0o600), os.WriteFile(list, overlay, 0o600)); err != nil {
		return missed, err
	}
	pkg := "./" + filepath.ToSlash(filepath.Dir(f.file))
	if exec.Command("go", "build", "-overlay", list, "./core/...").Run() != nil {
		return noProgram, nil
	}
	for _, p := range []string{pkg, "./core/..."} {
		if exec.Command("go", "test", "-overlay", list, "-timeout", "120s", p).Run() != nil {
			return seen, nil
		}
	}
	return missed, nil
}

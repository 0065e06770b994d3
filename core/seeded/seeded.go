// Package seeded gives fuzz targets inputs that are the same at every run and on every machine.
//
// A target adds examples, as with [testing.F]; a number of inputs are made of them by a generator whose seed is the name of
// the target, and tried whenever the tests run. Searching anew, with inputs that nobody has seen, is the business of
// go test -fuzz, for which nothing is made here.
package seeded

import (
	"flag"
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"os"
	"reflect"
	"testing"
)

// F is a [testing.F] whose examples grow.
type F struct {
	*testing.F
	n        int
	examples [][]any
}

// Of is a target with so many inputs beside its examples.
func Of(f *testing.F, n int) *F { return &F{F: f, n: n} }

// Add adds an example.
func (f *F) Add(args ...any) {
	f.F.Add(args...)
	f.examples = append(f.examples, args)
}

// Fuzz tries the examples, the corpus in testdata, and what is made of the examples. Of an input that fails it tells what
// it was.
func (f *F) Fuzz(target any) {
	f.Helper()
	if !searching() {
		seed := fnv.New64a()
		fmt.Fprint(seed, f.Name(), os.Getenv("WAKEFIELD_SEED")) // another seed by hand: nothing may hang on which
		for _, args := range grown(rand.New(rand.NewPCG(seed.Sum64(), 1)), f.examples, f.n) {
			f.F.Add(args...)
		}
	}
	f.F.Fuzz(telling(target))
}

// searching tells whether inputs are searched for that nobody has seen.
func searching() bool {
	pattern := flag.Lookup("test.fuzz")
	return pattern != nil && pattern.Value.String() != ""
}

// telling is a target that tells what it was given where that fails.
func telling(target any) any {
	v := reflect.ValueOf(target)
	return reflect.MakeFunc(v.Type(), func(args []reflect.Value) []reflect.Value {
		t := args[0].Interface().(*testing.T)
		t.Cleanup(func() {
			if t.Failed() {
				for _, a := range args[1:] {
					t.Logf("given %.2000q", fmt.Sprintf("%#v", a.Interface()))
				}
			}
		})
		return v.Call(args)
	}).Interface()
}

// grown makes n inputs of examples.
func grown(rng *rand.Rand, examples [][]any, n int) (out [][]any) {
	if len(examples) == 0 {
		panic("a target without an example")
	}
	for range n {
		args := append([]any(nil), examples[rng.IntN(len(examples))]...)
		// One argument at the least is another, often more.
		for times := 1 + rng.IntN(2*len(args)); times > 0; times-- {
			i := rng.IntN(len(args))
			args[i] = changed(rng, args[i], examples[rng.IntN(len(examples))][i])
		}
		out = append(out, args)
	}
	return out
}

// changed is another value of the kind of one, which may have parts of a third.
func changed(rng *rand.Rand, v, other any) any {
	switch v := v.(type) {
	case []byte:
		return text(rng, v, other.([]byte))
	case string:
		return string(text(rng, []byte(v), []byte(other.(string))))
	case bool:
		return !v
	case float64:
		return float(rng, v)
	case int:
		return int(whole(rng, int64(v)))
	case uint8:
		return uint8(rng.Uint32())
	case uint64:
		return rng.Uint64() >> rng.IntN(64)
	}
	panic(fmt.Sprintf("%T is no kind of input that is made here", v))
}

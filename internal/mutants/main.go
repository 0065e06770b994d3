// Command mutants asks whether the tests would notice. It changes the code in one place at a time ("<" becomes "<=",
// a statement is left out, a number is one more), runs the tests of the package, and of those above it where its own
// notice nothing, and lists the changes that none noticed. Files are changed in an overlay of the go tool, never on disk.
package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/alecthomas/kong"
)

type options struct {
	Number   int           `help:"How many changes to try." default:"240"`
	Seed     uint64        `help:"Which of all possible changes are drawn." default:"1"`
	Workers  int           `help:"How many at a time." default:"2"`
	Within   string        `help:"Only files whose path matches." default:"."`
	Report   string        `help:"Where every change and its fate is written." default:".cache/mutants.txt"`
	Again    string        `help:"A report of before: only the changes that survived in it are made, where the code still has them." type:"existingfile"`
	Slow     string        `help:"Tests that are asked last." default:"FourTimesInFive|OneMeasureOfSize|GroupsAreFound|LargePlans|FiftyEditors|TwoServers|FrozenDatabase|Hostile|LargestTables|FirstStarts|Growing"`
	Near     bool          `help:"Ask only the tests of the package itself, and of the core; what survives is told sooner, and some of it is noticed elsewhere."`
	Patience time.Duration `help:"How long the tests of a package may take before a change counts as noticed by time." default:"8m"`
	Rooms    []string      `arg:"" optional:"" help:"Folders whose code is changed."`
}

// heavy is the package that is compiled anew for nearly every change of the core; without inlining that takes half the time.
const heavy = "wakefield.example/internal/api"

// fate is what became of one change.
type fate string

const (
	noticed  fate = "noticed"
	survived fate = "SURVIVED"
	nonsense fate = "does not compile"
)

func main() {
	var o options
	kong.Parse(&o, kong.Description("Changes the code in many places, one at a time, and lists what no test noticed."))
	if err := run(o); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// shipped are the folders of the packages that the program is made of: what only tests need is not changed.
func shipped(ctx context.Context) (map[string]bool, error) {
	list, err := exec.CommandContext(ctx, "go", "list", "-deps", "./cmd/wakefield").Output()
	folders := make(map[string]bool)
	for _, path := range strings.Fields(string(list)) {
		if folder, ours := strings.CutPrefix(path, "wakefield.example/"); ours {
			folders[folder] = true
		}
	}
	return folders, err
}

// mutantsIn lists every change that can be made in folders and what is below them, in packages of the program and files whose
// paths match.
func mutantsIn(rooms []string, of map[string]bool, within *regexp.Regexp) (all []mutant, err error) {
	for _, room := range rooms {
		err := filepath.WalkDir(room, func(path string, d os.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") ||
				!of[filepath.ToSlash(filepath.Dir(path))] || !within.MatchString(path) {
				return err
			}
			found, err := mutantsOf(path)
			all = append(all, found...)
			return err
		})
		if err != nil {
			return nil, err
		}
	}
	return all, nil
}

func run(o options) error {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	within, err := regexp.Compile(o.Within)
	if err != nil {
		return err
	}
	if len(o.Rooms) == 0 {
		o.Rooms = []string{"core", "internal/api", "internal/server", "internal/store", "internal/formats"}
	}
	of, err := shipped(ctx)
	if err != nil {
		return err
	}
	all, err := mutantsIn(o.Rooms, of, within)
	if err != nil {
		return err
	}
	if o.Again != "" {
		if all, err = survivors(o.Again, all); err != nil {
			return err
		}
		o.Number = len(all)
	}
	random := rand.New(rand.NewPCG(o.Seed, 0))
	random.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })

	report, err := os.Create(o.Report)
	if err != nil {
		return err
	}
	defer report.Close()
	lines := bufio.NewWriter(report)
	defer lines.Flush()
	var mutex sync.Mutex
	var killed, lived atomic.Int32
	var group sync.WaitGroup
	next := make(chan mutant)
	for range max(1, o.Workers) {
		group.Go(func() {
			for m := range next {
				what, by := try(ctx, o, m)
				mutex.Lock()
				fmt.Fprintf(lines, "%-16s %s %s\n", what, m, by)
				lines.Flush()
				switch what {
				case noticed:
					killed.Add(1)
				case survived:
					lived.Add(1)
					fmt.Println(m)
				}
				mutex.Unlock()
			}
		})
	}
	// As many as were asked for, those that do not compile not counted.
	for _, m := range all {
		if int(killed.Load()+lived.Load()) >= o.Number || ctx.Err() != nil {
			break
		}
		next <- m
	}
	close(next)
	group.Wait()
	k, l := killed.Load(), lived.Load()
	fmt.Printf("%d of %d changes noticed, %.1f %%; %d places could be changed\n", k, k+l, 100*float64(k)/float64(max(k+l, 1)), len(all))
	return ctx.Err()
}

// survivors are the changes that survived in a report, each at the nearest place to where it was.
func survivors(report string, all []mutant) (out []mutant, err error) {
	text, err := os.ReadFile(report)
	for _, line := range regexp.MustCompile(`(?m)^SURVIVED\s+(\S+):(\d+): (.*?)\s*$`).FindAllStringSubmatch(string(text), -1) {
		was, _ := strconv.Atoi(line[2])
		nearest := -1
		for i, m := range all {
			if m.file != line[1] || m.change() != line[3] {
				continue
			}
			if nearest < 0 || abs(m.line-was) < abs(all[nearest].line-was) {
				nearest = i
			}
		}
		if nearest >= 0 {
			out = append(out, all[nearest])
		}
	}
	return out, err
}

func abs(n int) int { return max(n, -n) }

// try runs the tests on a changed file: those of its own package first, then those of all that can see it, slow ones last.
func try(ctx context.Context, o options, m mutant) (what fate, by string) {
	folder, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return nonsense, err.Error()
	}
	defer os.RemoveAll(folder)
	changed, overlay := filepath.Join(folder, "changed.go"), filepath.Join(folder, "overlay.json")
	path, _ := filepath.Abs(m.file)
	instead, _ := json.Marshal(map[string]map[string]string{"Replace": {path: changed}})
	if os.WriteFile(changed, m.text(), 0o644) != nil || os.WriteFile(overlay, instead, 0o644) != nil {
		return nonsense, "cannot be written"
	}
	own := "./" + filepath.Dir(m.file)
	if exec.CommandContext(ctx, "go", "build", "-overlay", overlay, own).Run() != nil {
		return nonsense, ""
	}
	rounds := [][]string{{"-skip", o.Slow, own}}
	if strings.HasPrefix(m.file, "core/") {
		rounds = append(rounds, []string{"-skip", o.Slow, "./core/...", "./internal/schematest", "./internal/formats"})
		if !o.Near {
			rounds = append(rounds, []string{"-skip", o.Slow, "./internal/api"})
		}
	}
	for _, asked := range append(rounds, []string{"-run", o.Slow, own}) {
		args := append([]string{"test", "-overlay", overlay, "-vet=off", "-failfast", "-timeout", o.Patience.String(),
			"-gcflags=" + heavy + "=-l"}, asked...)
		if out, err := exec.CommandContext(ctx, "go", args...).CombinedOutput(); err != nil {
			return noticed, firstFailure(out)
		}
	}
	return survived, ""
}

var failure = regexp.MustCompile(`(?m)^\s*--- FAIL: (\S+)`)

func firstFailure(out []byte) string {
	if found := failure.FindSubmatch(out); found != nil {
		return "by " + string(found[1])
	}
	if bytes.Contains(out, []byte("panic: test timed out")) {
		return "by time"
	}
	return "by a panic"
}

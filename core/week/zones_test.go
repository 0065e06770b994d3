package week

import (
	"archive/zip"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// zones are the names of all zones that Go knows.
func zones(t *testing.T) (names []string) {
	t.Helper()
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		t.Fatal(err)
	}
	z, err := zip.OpenReader(filepath.Join(strings.TrimSpace(string(root)), "lib", "time", "zoneinfo.zip"))
	if err != nil {
		t.Fatal(err)
	}
	defer z.Close()
	for _, f := range z.File {
		if !f.FileInfo().IsDir() {
			names = append(names, f.Name)
		}
	}
	return names
}

// TestEveryDayOfEveryZone goes through ten years in every zone there is. Each date begins where the one before ends, on the
// date itself; the days around a change of clocks are as long as counting their minutes says; and the year is their sum.
func TestEveryDayOfEveryZone(t *testing.T) {
	names, odd := zones(t), 0
	if len(names) < 400 {
		t.Fatalf("%d zones", len(names))
	}
	for _, name := range names {
		zone, err := time.LoadLocation(name)
		if err != nil {
			t.Fatal(err)
		}
		for year := 2024; year < 2034; year++ {
			first := Date{year, time.January, 1}
			days, sum := first.DaysInYear(), time.Duration(0)
			if want := 365 + map[bool]int{true: 1}[year%4 == 0]; days != want {
				t.Fatalf("%d has %d dates", year, days)
			}
			for k := range days {
				d := first.Add(k)
				begins, ends := d.At(0, zone), d.Add(1).At(0, zone)
				length := ends.Sub(begins)
				sum += length
				if y, m, day := begins.Date(); (Date{y, m, day}) != d {
					t.Fatalf("%s: %v begins on %v", name, d, begins)
				}
				if length == 24*time.Hour {
					continue
				}
				odd++
				counted := time.Duration(0)
				for at := begins.Add(-3 * time.Hour); at.Before(ends.Add(3 * time.Hour)); at = at.Add(time.Minute) {
					if y, m, day := at.Date(); (Date{y, m, day}) == d {
						counted += time.Minute
					}
				}
				if counted != length {
					t.Errorf("%s: %v is %v long, counted %v", name, d, length, counted)
				}
			}
			if whole := (Date{year + 1, time.January, 1}).At(0, zone).Sub(first.At(0, zone)); whole != sum {
				t.Errorf("%s: %d is %v long, its days %v", name, year, whole, sum)
			}
		}
	}
	if odd < 1000 {
		t.Errorf("%d days with a change of clocks", odd)
	}
	for name, on := range map[string]Date{"America/Havana": {2026, time.March, 8}, "America/Santiago": {2026, time.September, 6},
		"Africa/Cairo": {2026, time.April, 24}} {
		zone, err := time.LoadLocation(name)
		if err != nil {
			t.Fatal(err)
		}
		if at := on.At(0, zone); at.Hour() != 1 || on.Add(1).At(0, zone).Sub(at) != 23*time.Hour ||
			at.Sub(on.Add(-1).At(0, zone)) != 24*time.Hour {
			t.Errorf("%s: %v begins at %v", name, on, at)
		}
	}
}

// TestTimesThatClocksSkip asks for moments in the gap, at its edges, and beside it.
func TestTimesThatClocksSkip(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Dublin")
	if err != nil {
		t.Fatal(err)
	}
	on := Date{2027, time.March, 28} // 01:00 becomes 02:00
	for minute, want := range map[Clock]string{59: "00:59", 60: "02:00", 90: "02:00", 119: "02:00", 120: "02:00",
		121: "02:01", 1440: "00:00"} {
		if got := on.At(minute, zone).Format("15:04"); got != want {
			t.Errorf("minute %d is %s, want %s", minute, got, want)
		}
	}
}

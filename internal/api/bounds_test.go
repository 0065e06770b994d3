package api

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"wakefield.example/core/plan"
	"wakefield.example/core/rehearse"
	"wakefield.example/internal/server"
	"wakefield.example/internal/stills"
	"wakefield.example/internal/store"
)

// TestBoundsAreThoseOfTheDocuments holds the table of bounds against the program.
func TestBoundsAreThoseOfTheDocuments(t *testing.T) {
	data, err := os.ReadFile("../../docs/operation.md")
	if err != nil {
		t.Fatal(err)
	}
	mib := func(n int) string { return fmt.Sprintf("%d MiB", n>>20) }
	for what, want := range map[string]string{
		"a plan as it is stored, JSON without spaces":      mib(plan.MaxBytes),
		"a plan file, with spaces; an event log":           mib(plan.MaxFileBytes),
		"a file of what was found":                         mib(server.BundleBody) + ", a million lines",
		"a channel table":                                  mib(server.TableBody),
		"the frames of a clip":                             mib(server.ClipBody),
		"any other request":                                mib(server.UsualBody),
		"a JSON request":                                   fmt.Sprintf("%d values, %d objects", server.MostValues, server.MostObjects),
		"variants of a site; with those that were removed": fmt.Sprintf("%d; %d", store.MostVariants, store.MostPlans),
		"a picture": fmt.Sprintf("%d MB, %d million pixels of 4 bytes", stills.LargestBytes>>20,
			stills.MostPixels/1_000_000),
		"the pictures of an archive": fmt.Sprintf("%d million pixels, 160 MB; %d MB of it all",
			stills.MostOfBundle/1_000_000, server.BundleBody>>20),
		"the company's logo":                      fmt.Sprintf("%d × %d pixels", largestLogo, largestLogo),
		"pictures of cameras in papers, together": mib(mostPaperPictures),
		"steps that are ticked, of a plan":        fmt.Sprint(store.MostTicks),
		"plans made ready for sheets and papers at hand, for a minute after the last question": fmt.Sprintf("%d, and %d as they were printed",
			mostSources, mostSources),
		"pictures being decoded, all requests together": fmt.Sprintf("%d MB", server.PictureBytes/1_000_000),
		"a rehearsal, before it is played": fmt.Sprintf("%d events, %d times",
			rehearse.MostEvents, rehearse.MostHolds),
		"requests that only read, at once":                     fmt.Sprintf("%v a core", server.ReadsAtOnce),
		"memory of a request above what the server has in use": fmt.Sprintf("%d MB", mostOfOneRequest>>20),
		"who makes a change":                                   fmt.Sprintf("%d characters", longestAuthor),
		"bodies of all requests together": mib(server.RoomBytes) +
			fmt.Sprintf("; others wait, %v at most", "10 s"),
		"a request":                   fmt.Sprintf("%.0f s", server.Longest.Seconds()),
		"plans and estimates at hand": mib(mostCached),
		"heavy work at once: files, plans that are not at hand": "2",
	} {
		if !strings.Contains(string(data), "| "+what+" | "+want) {
			t.Errorf("docs/operation.md does not say: %s | %s", what, want)
		}
	}
	if server.LargestBody != plan.MaxFileBytes || server.BusyAfter.Seconds() != 10 {
		t.Error("plan files may be larger than a request, or the wait is another")
	}
}

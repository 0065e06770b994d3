package house

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// TestMenusAreMadeWhenTheyOpen asks every menu of the front end: one that is made before is paid for by who never opens it.
func TestMenusAreMadeWhenTheyOpen(t *testing.T) {
	menu := regexp.MustCompile(`(?s)<El(Dropdown|Popover)\b(.*?)>\s*\n`)
	seen := 0
	err := filepath.WalkDir("../../web/src", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || filepath.Ext(path) != ".vue" {
			return err
		}
		text, err := os.ReadFile(path)
		for _, tag := range menu.FindAllStringSubmatch(string(text), -1) {
			seen++
			if !strings.Contains(tag[2], `:persistent="false"`) {
				t.Errorf("%s makes a menu before it is opened: %s", path, tag[0])
			}
		}
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	if seen < 10 {
		t.Errorf("%d menus were seen", seen)
	}
}

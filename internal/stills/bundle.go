package stills

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"path"
	"strings"
)

const (
	planName      = "plan.json"
	pictureFolder = "pictures/"
	mostEntries   = 10_000
)

// IsBundle tells whether a file is a zip archive.
func IsBundle(data []byte) bool { return bytes.HasPrefix(data, []byte("PK\x03\x04")) }

// Pack makes a zip archive of a plan file and the stills that it names.
func Pack(ctx context.Context, plan []byte, list []*Still) ([]byte, error) {
	var out bytes.Buffer
	size := len(plan) + 4096
	for _, s := range list {
		size += len(s.JPEG) + 256
	}
	out.Grow(size) // once, as a buffer that grows takes twice what it holds
	z := zip.NewWriter(&out)
	add := func(name string, method uint16, data []byte) error {
		w, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: method})
		if err == nil {
			_, err = w.Write(data)
		}
		return err
	}
	if err := add(planName, zip.Deflate, plan); err != nil {
		return nil, err
	}
	for _, s := range list {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if err := add(pictureFolder+s.ID+".jpg", zip.Store, s.JPEG); err != nil { // it is compressed as it is
			return nil, err
		}
	}
	err := z.Close()
	return out.Bytes(), err
}

// Unpack reads a zip archive of a plan file, of at most largest bytes, and pictures. Those that named asks for are taken
// in, by the name that the plan gives them, which is that of their file without its ending. The archive may hold other
// things, and all of it may stand in a folder. All pictures together have at most [MostOfBundle] pixels, told before any is
// decoded.
func Unpack(ctx context.Context, data []byte, largest int64, named func(plan []byte) ([]string,
	error)) (plan []byte, pictures map[string]*Still, err error) {
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, nil, errors.New("the zip archive is damaged")
	}
	if len(z.File) > mostEntries {
		return nil, nil, fmt.Errorf("the zip archive has %d files; %d are the most", len(z.File), mostEntries)
	}
	plan, files, err := sorted(z, largest)
	if err != nil {
		return nil, nil, err
	}
	names, err := named(plan)
	if err != nil {
		return nil, nil, err
	}
	if err := checkPixels(ctx, names, files); err != nil {
		return nil, nil, err
	}
	pictures = make(map[string]*Still)
	for _, name := range names {
		f := files[name]
		if f == nil || pictures[name] != nil {
			continue
		}
		if err := ctx.Err(); err != nil {
			return nil, nil, err
		}
		data, err := content(f, LargestBytes)
		if err != nil {
			return nil, nil, err
		}
		if pictures[name], err = Take(ctx, data); err != nil {
			return nil, nil, fmt.Errorf("%s: %w", f.Name, err)
		}
	}
	return plan, pictures, nil
}

// sorted is the plan file of an archive, and its pictures by the names of their files without their endings.
func sorted(z *zip.Reader, largest int64) (plan []byte, pictures map[string]*zip.File, err error) {
	pictures = make(map[string]*zip.File)
	for _, f := range z.File {
		base := path.Base(f.Name)
		ext := strings.ToLower(path.Ext(base))
		switch {
		case f.FileInfo().IsDir() || strings.HasPrefix(base, ".") || strings.HasPrefix(f.Name, "__MACOSX/"):
		case ext == ".json" && plan != nil:
			return nil, nil, errors.New("the zip archive has more than one plan file in it")
		case ext == ".json":
			if plan, err = content(f, largest); err != nil {
				return nil, nil, err
			}
		case ext == ".jpg" || ext == ".jpeg" || ext == ".png" || ext == ".webp":
			pictures[base[:len(base)-len(ext)]] = f
		}
	}
	if plan == nil {
		return nil, nil, errors.New("there is no plan file in the zip archive")
	}
	return plan, pictures, nil
}

// MostOfBundle is how many pixels all pictures of an archive may have together: 144 of those that are kept.
const MostOfBundle = 300_000_000

// mostUnpacked is how many bytes the pictures of an archive may have together. Those that are packed as we do do not shrink.
const mostUnpacked = 160 << 20

// checkPixels adds up the pixels of pictures, of which it reads the heads.
func checkPixels(ctx context.Context, names []string, files map[string]*zip.File) error {
	pixels, unpacked := int64(0), uint64(0)
	for _, name := range names {
		f := files[name]
		if f == nil {
			continue
		}
		if err := ctx.Err(); err != nil {
			return err
		}
		if unpacked += f.UncompressedSize64; unpacked > mostUnpacked {
			return fmt.Errorf("the pictures of the archive have more than %d MB once they are unpacked", mostUnpacked>>20)
		}
		data, err := content(f, LargestBytes)
		if err != nil {
			return err
		}
		config, _, err := look(data)
		if err != nil {
			return fmt.Errorf("%s: %w", f.Name, err)
		}
		if pixels += int64(config.Width) * int64(config.Height); pixels > MostOfBundle {
			return fmt.Errorf("the pictures of the archive have more than %d million pixels together", MostOfBundle/1_000_000)
		}
	}
	return nil
}

// content is what a file of an archive holds. No more than largest bytes of it are ever unpacked.
func content(f *zip.File, largest int64) ([]byte, error) {
	r, err := f.Open()
	if err != nil {
		return nil, fmt.Errorf("%s cannot be unpacked", f.Name)
	}
	defer r.Close()
	data, err := io.ReadAll(io.LimitReader(r, largest+1))
	switch {
	case err != nil:
		return nil, fmt.Errorf("%s is damaged", f.Name)
	case int64(len(data)) > largest:
		return nil, fmt.Errorf("%s is larger than %d MB", f.Name, largest>>20)
	}
	return data, nil
}

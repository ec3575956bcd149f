package mariadb

import (
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
)

// copies is how many copies of a data folder are kept.
const copies = 2

// KeepCopy copies the data of a server that is stopped to a folder of that name beside it,
// DIR/copies/NAME, and keeps the newest two. What the copy was made before is under way until
// [CopyServed] is called: until then no other is made, for it would be one of something half
// done. A copy that is cut short is not there. It fails with ErrFull where there is no room.
func KeepCopy(dir, name string) error {
	data, kept := filepath.Join(dir, "data"), filepath.Join(dir, "copies")
	to, making := filepath.Join(kept, name), filepath.Join(kept, "making")
	if _, err := os.Stat(underWay(dir)); err == nil {
		return nil
	}
	if err := os.RemoveAll(to); err != nil {
		return err
	}
	if err := errors.Join(os.RemoveAll(making), os.MkdirAll(making, 0o700)); err != nil {
		return asFull(err)
	}
	if err := room(data, kept); err != nil {
		return err
	}
	if err := filepath.WalkDir(data, func(path string, entry fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		below := filepath.Join(making, strings.TrimPrefix(path, data))
		if entry.IsDir() {
			return os.MkdirAll(below, 0o700)
		}
		return copyFile(path, below)
	}); err != nil {
		os.RemoveAll(making)
		return fmt.Errorf("the data cannot be copied: %w", asFull(err))
	}
	if err := os.Rename(making, to); err != nil {
		return err
	}
	if err := os.WriteFile(underWay(dir), []byte(name+"\n"), 0o600); err != nil {
		return asFull(err)
	}
	return thinCopies(kept)
}

// underWay is the file that says before what the newest copy was made.
func underWay(dir string) string { return filepath.Join(dir, "upgrading") }

// CopyServed says that what a copy was made before is done.
func CopyServed(dir string) error {
	err := os.Remove(underWay(dir))
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	return err
}

// room fails where the disk has less room than the data take, with something to spare.
func room(data, kept string) error {
	var needed uint64 = minFree
	err := filepath.WalkDir(data, func(_ string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() {
			return err
		}
		info, err := entry.Info()
		if err == nil {
			needed += uint64(info.Size())
		}
		return err
	})
	var disk syscall.Statfs_t
	if err == nil && syscall.Statfs(kept, &disk) == nil && disk.Bavail*uint64(disk.Bsize) < needed {
		return ErrFull
	}
	return err
}

func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_WRONLY|os.O_TRUNC, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Sync(), out.Close())
}

// thinCopies deletes all but the newest.
func thinCopies(kept string) error {
	entries, err := os.ReadDir(kept)
	if err != nil {
		return err
	}
	age := func(e fs.DirEntry) int64 {
		info, err := e.Info()
		if err != nil {
			return 0
		}
		return info.ModTime().UnixNano()
	}
	slices.SortFunc(entries, func(a, b fs.DirEntry) int { return int(min(1, max(-1, age(b)-age(a)))) })
	for _, old := range entries[min(len(entries), copies):] {
		err = errors.Join(err, os.RemoveAll(filepath.Join(kept, old.Name())))
	}
	return err
}

package store

import (
	"errors"
	"syscall"

	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// Fault is what keeps the disk from keeping something; "" is none of these.
type Fault string

// The faults.
const (
	Full     Fault = "disk_full"
	Locked   Fault = "locked"
	ReadOnly Fault = "read_only"
	Broken   Fault = "disk_broken" // the disk itself does not read or write
	Damaged  Fault = "damaged"     // what is on it is not what was written
	Foreign  Fault = "foreign"     // it does not even begin as it should
)

var faults = map[int]Fault{
	sqlite3.SQLITE_FULL:     Full,
	sqlite3.SQLITE_BUSY:     Locked,
	sqlite3.SQLITE_LOCKED:   Locked,
	sqlite3.SQLITE_READONLY: ReadOnly,
	sqlite3.SQLITE_PERM:     ReadOnly,
	sqlite3.SQLITE_CANTOPEN: Broken,
	sqlite3.SQLITE_IOERR:    Broken,
	sqlite3.SQLITE_CORRUPT:  Damaged,
	sqlite3.SQLITE_NOTADB:   Foreign,
}

// Sentence says what a cook can do about it. Whatever it was, nothing of that save was kept.
func (f Fault) Sentence() string {
	switch f {
	case Full:
		return "The disk is full, so nothing was saved. Make room and save again; what is on the screen is still yours."
	case Locked:
		return "Another program holds the kitchen's file, so nothing was saved. Wait a moment and save again; if it stays so, close the other program."
	case ReadOnly:
		return "The kitchen's file may only be read, so nothing was saved. Let the program write to it and to its folder, then save again."
	case Broken:
		return "The disk did not read or write, so nothing was saved. Try again; if it stays so, look at the disk or its cable, copy what you can, and start the program again."
	case Damaged, Foreign:
		return "A part of the kitchen's file could not be read. Try again; if it says so again, the file is damaged: close the program and bring back the copy of a day before with “upbeat-ladle restore”."
	}
	return ""
}

// faultsOutside are those of a file that the program writes beside the database.
var faultsOutside = map[syscall.Errno]Fault{
	syscall.ENOSPC: Full,
	syscall.EDQUOT: Full,
	syscall.EROFS:  ReadOnly,
	syscall.EACCES: ReadOnly,
	syscall.EIO:    Broken,
}

// FaultOf tells which fault an error of the store comes from.
func FaultOf(err error) Fault {
	var outside syscall.Errno
	if errors.As(err, &outside) {
		return faultsOutside[outside]
	}
	var e *sqlite.Error
	if !errors.As(err, &e) {
		return ""
	}
	return faults[e.Code()&0xff] // the low byte is the fault, the rest says where
}

package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"unsafe"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"

	"upbeatladle/store"
)

// refusal is a call of the operating system that fails from the start: the disk under SQLite.
type refusal struct {
	call  uintptr
	bytes uint32 // only calls that write so many; 0 for any
	errno syscall.Errno
}

// The variables that make this test's program refuse a call and then become the real program.
const refuseKey, becomeKey = "REFUSE_CALL", "BECOME"

func TestMain(m *testing.M) {
	if spec := os.Getenv(refuseKey); spec != "" {
		fmt.Fprintln(os.Stderr, refuseAndBecome(spec, strings.Split(os.Getenv(becomeKey), "\n")))
		os.Exit(77)
	}
	code := m.Run()
	if builtIn != "" {
		os.RemoveAll(builtIn) //nolint:errcheck // what was made for the tests
	}
	os.Exit(code)
}

// refuseAndBecome sets a filter on this thread, which outlives the exec.
func refuseAndBecome(spec string, args []string) error {
	part := strings.Split(spec, ",")
	n := make([]uint64, len(part))
	for i := range part {
		n[i], _ = strconv.ParseUint(part[i], 10, 32)
	}
	runtime.LockOSThread()
	const nr, thirdArgument = 0, 16 + 2*8 // offsets in what the kernel hands to a filter
	filter := []unix.SockFilter{
		{Code: unix.BPF_LD | unix.BPF_W | unix.BPF_ABS, K: nr},
		{Code: unix.BPF_JMP | unix.BPF_JEQ | unix.BPF_K, K: uint32(n[0]), Jf: 3},
		{Code: unix.BPF_LD | unix.BPF_W | unix.BPF_ABS, K: thirdArgument},
		{Code: unix.BPF_JMP | unix.BPF_JEQ | unix.BPF_K, K: uint32(n[1]), Jf: 1},
		{Code: unix.BPF_RET | unix.BPF_K, K: unix.SECCOMP_RET_ERRNO | uint32(n[2])},
		{Code: unix.BPF_RET | unix.BPF_K, K: unix.SECCOMP_RET_ALLOW},
	}
	if n[1] == 0 { // any: the comparison is with nothing
		filter[3] = unix.SockFilter{Code: unix.BPF_JMP | unix.BPF_JA, K: 0}
	}
	prog := unix.SockFprog{Len: uint16(len(filter)), Filter: &filter[0]}
	if err := unix.Prctl(unix.PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0); err != nil {
		return err
	}
	if err := unix.Prctl(unix.PR_SET_SECCOMP, unix.SECCOMP_MODE_FILTER, uintptr(unsafe.Pointer(&prog)), 0, 0); err != nil {
		return err
	}
	return syscall.Exec(args[0], args, os.Environ())
}

// A disk that is full, that does not write, or that does not promise what it wrote: a save is
// refused in words, what was there is still served, and after a restart on a sound disk there
// is what was acknowledged and nothing else.
func TestADiskThatFails(t *testing.T) {
	const page = 4096
	bin := program(t)
	for name, c := range map[string]struct {
		refusal
		fault  store.Fault
		status int
	}{
		"full":             {refusal{unix.SYS_PWRITE64, page, syscall.ENOSPC}, store.Full, http.StatusInsufficientStorage},
		"does not write":   {refusal{unix.SYS_PWRITE64, page, syscall.EIO}, store.Broken, http.StatusInternalServerError},
		"does not promise": {refusal{unix.SYS_FSYNC, 0, syscall.EIO}, store.Broken, http.StatusInternalServerError},
	} {
		t.Run(name, func(t *testing.T) {
			db := filepath.Join(t.TempDir(), "k.db")
			args := []string{bin, "serve", "--db", db, "--addr", "127.0.0.1:0"}
			post := func(said, as string) (int, string) {
				resp, err := http.Post(regexp.MustCompile(`http://\S+`).FindString(said)+"/api/v1/variations", "application/json",
					strings.NewReader(strings.Replace(variation, `"name":"x"`, `"name":"`+as+`"`, 1)))
				require.NoError(t, err)
				defer resp.Body.Close()
				var p struct{ Detail string }
				require.NoError(t, json.NewDecoder(resp.Body).Decode(&p))
				return resp.StatusCode, p.Detail
			}
			t.Run("sound", func(t *testing.T) {
				status, _ := post(start(t, bin, 1, args[1:]...)[0], "before")
				require.Equal(t, http.StatusCreated, status)
			})
			cmd := exec.Command(os.Args[0])
			cmd.Env = append(os.Environ(), refuseKey+"="+fmt.Sprintf("%d,%d,%d", c.call, c.bytes, c.errno), becomeKey+"="+strings.Join(args, "\n"))
			out, err := cmd.StdoutPipe()
			require.NoError(t, err)
			require.NoError(t, cmd.Start())
			line := bufio.NewScanner(out)
			if !line.Scan() {
				_ = cmd.Wait()
				if cmd.ProcessState.ExitCode() == 77 {
					t.Skip("this machine does not let a test refuse calls")
				}
				t.Fatal("the program did not start on a failing disk")
			}
			status, detail := post(line.Text(), "refused")
			assert.Equal(t, c.status, status)
			assert.Equal(t, c.fault.Sentence(), detail)
			assert.Equal(t, map[string]bool{"before": true}, kept(t, line.Text()), "what was there is still served")
			require.NoError(t, cmd.Process.Kill())
			_ = cmd.Wait() // it was killed

			said := start(t, bin, 1, args[1:]...)[0]
			status, _ = post(said, "after")
			assert.Equal(t, http.StatusCreated, status)
			assert.Equal(t, map[string]bool{"before": true, "after": true}, kept(t, said))
		})
	}
}

package house

import (
	"crypto/tls"
	"crypto/x509"
	"fmt"
	"io"
	"net"
	"net/netip"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/store"
)

// clock is a time that tests move on.
type clock struct{ at time.Time }

func (c *clock) now() time.Time       { return c.at }
func (c *clock) pass(d time.Duration) { c.at = c.at.Add(d) }

var (
	bowl  = netip.MustParseAddr("192.168.1.20")
	plate = netip.MustParseAddr("192.168.1.21")
)

const passcode = "quince-kettle-amber-drum"

func open(t *testing.T) (*House, *clock, *store.Store) {
	t.Helper()
	c := &clock{time.Date(2026, 11, 26, 6, 0, 0, 0, time.UTC)}
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "house.db"), c.now)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, st.Close()) })
	h := New(st, c.now)
	h.Work = Work{Memory: 64, Passes: 1}
	require.NoError(t, h.Set(t.Context(), passcode, "Halyard Hatch"))
	return h, c, st
}

func in(t *testing.T, h *House, from netip.Addr, name string) (string, store.Tablet) {
	t.Helper()
	token, tablet, err := h.SignIn(t.Context(), from, passcode, name)
	require.NoError(t, err)
	return token, tablet
}

func TestOnlyThePasscodeOpens(t *testing.T) {
	h, _, _ := open(t)
	ctx := t.Context()
	for _, wrong := range []string{"", "quince", passcode + " ", strings.ToUpper(passcode), strings.Repeat("x", 100_000)} {
		_, _, err := New(h.store, h.now).SignIn(ctx, bowl, wrong, "")
		assert.ErrorIs(t, err, ErrWrong, "%.20q", wrong)
	}
	token, tablet := in(t, h, bowl, "  at   the bowl\n")
	assert.Equal(t, "at the bowl", tablet.Name)
	who, err := h.Who(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, tablet.ID, who.ID)
	for _, stranger := range []string{"", "x", token + "x", token[:len(token)-1]} {
		_, err := h.Who(ctx, stranger)
		assert.ErrorIs(t, err, ErrOutside, "%q", stranger)
	}
}

func TestWithoutAPasscodeNobodyComesIn(t *testing.T) {
	c := &clock{time.Now()}
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "house.db"), c.now)
	require.NoError(t, err)
	defer st.Close()
	h := New(st, c.now)
	_, _, err = h.SignIn(t.Context(), bowl, "", "")
	assert.ErrorIs(t, err, ErrWrong)
	made, err := h.Begin(t.Context())
	require.NoError(t, err)
	assert.NoError(t, fit(made, ""), "what the program makes up is good enough for itself")
	_, _, err = h.SignIn(t.Context(), bowl, made, "")
	assert.NoError(t, err)
	again, err := h.Begin(t.Context())
	assert.NoError(t, err)
	assert.Empty(t, again, "it is told once")
}

func TestNothingThatIsKeptOpensTheDoor(t *testing.T) {
	c := &clock{time.Now()}
	path, copyAt := filepath.Join(t.TempDir(), "house.db"), filepath.Join(t.TempDir(), "copy.db")
	st, err := store.Open(t.Context(), path, c.now)
	require.NoError(t, err)
	defer st.Close()
	h := New(st, c.now)
	require.NoError(t, h.Set(t.Context(), passcode, "Halyard Hatch"))
	token, _ := in(t, h, bowl, "")
	guest, _, err := h.Invite(t.Context(), aCard(t, st), 1)
	require.NoError(t, err)
	require.NoError(t, store.Backup(t.Context(), path, copyAt))
	data, err := os.ReadFile(copyAt)
	require.NoError(t, err)
	for _, secret := range []string{passcode, token, guest} {
		assert.NotContains(t, string(data), secret)
	}
	kept, err := st.Passcode(t.Context())
	require.NoError(t, err)
	assert.Contains(t, kept, "$argon2id$v=19$m=19456,t=2,p=1$", "a guess costs what OWASP advises")

	// A copy carries the passcode's hash, and nobody who was in: signing out is for good.
	second, err := store.Open(t.Context(), copyAt, c.now)
	require.NoError(t, err)
	defer second.Close()
	_, err = New(second, c.now).Who(t.Context(), token)
	assert.ErrorIs(t, err, ErrOutside)
	_, err = New(second, c.now).Guest(t.Context(), guest)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, _, err = New(second, c.now).SignIn(t.Context(), bowl, passcode, "")
	assert.NoError(t, err)
}

func TestSignedOutIsOut(t *testing.T) {
	h, _, _ := open(t)
	ctx := t.Context()
	token, tablet := in(t, h, bowl, "")
	other, _ := in(t, h, plate, "")
	require.NoError(t, h.SignOut(ctx, tablet.ID))
	_, err := h.Who(ctx, token)
	assert.ErrorIs(t, err, ErrOutside, "a stolen cookie does not work after signing out")
	_, err = h.Who(ctx, other)
	assert.NoError(t, err)
	assert.ErrorIs(t, h.SignOut(ctx, tablet.ID), store.ErrNotFound)
}

func TestAnotherPasscodeSignsTheOthersOut(t *testing.T) {
	h, _, _ := open(t)
	ctx := t.Context()
	mine, tablet := in(t, h, bowl, "")
	theirs, _ := in(t, h, plate, "")
	assert.ErrorIs(t, h.Change(ctx, bowl, tablet.ID, "not it at all", "plum-ferry-oak-zest", "Halyard Hatch"), ErrWrong)
	require.NoError(t, h.Change(ctx, bowl, tablet.ID, passcode, "plum-ferry-oak-zest", "Halyard Hatch"))
	_, err := h.Who(ctx, mine)
	assert.NoError(t, err)
	_, err = h.Who(ctx, theirs)
	assert.ErrorIs(t, err, ErrOutside)
	_, _, err = h.SignIn(ctx, plate, passcode, "")
	assert.ErrorIs(t, err, ErrWrong)
	require.NoError(t, h.Set(ctx, "gorse-tulip-raft-mint", ""))
	_, err = h.Who(ctx, mine)
	assert.ErrorIs(t, err, ErrOutside, "by command everybody is signed out")
}

func TestATabletStaysInForAWeekAndAMonthAtMost(t *testing.T) {
	h, c, _ := open(t)
	ctx := t.Context()
	idle, _ := in(t, h, bowl, "")
	c.pass(idleFor - time.Second)
	_, err := h.Who(ctx, idle)
	assert.NoError(t, err)
	c.pass(idleFor)
	_, err = h.Who(ctx, idle)
	assert.ErrorIs(t, err, ErrOutside, "a week without being seen")

	busy, _ := in(t, h, bowl, "")
	for day := 1; day < 30; day++ {
		c.pass(24 * time.Hour)
		_, err = h.Who(ctx, busy)
		require.NoError(t, err, "day %d", day)
	}
	c.pass(24 * time.Hour)
	_, err = h.Who(ctx, busy)
	assert.ErrorIs(t, err, ErrOutside, "a month after it came in")
	all, err := h.Tablets(ctx)
	assert.NoError(t, err)
	assert.Empty(t, all, "what is over is not listed")
}

func TestWrongPasscodesHaveToWait(t *testing.T) {
	h, c, _ := open(t)
	ctx := t.Context()
	var locked *LockedError
	for i := range freeMisses {
		_, _, err := h.SignIn(ctx, bowl, "wrong", "")
		if i < freeMisses-1 {
			require.ErrorIs(t, err, ErrWrong)
		} else {
			require.ErrorAs(t, err, &locked)
			assert.Equal(t, firstLock, locked.Wait)
		}
	}
	_, _, err := h.SignIn(ctx, bowl, passcode, "")
	assert.ErrorAs(t, err, &locked, "the right one has to wait as well")
	in(t, h, plate, "") // who is somewhere else does not
	c.pass(firstLock)
	_, _, err = h.SignIn(ctx, bowl, "wrong", "")
	require.ErrorAs(t, err, &locked)
	assert.Equal(t, 2*firstLock, locked.Wait, "each further one doubles it")
	c.pass(2 * firstLock)
	in(t, h, bowl, "")
	_, _, err = h.SignIn(ctx, bowl, "wrong", "")
	assert.ErrorIs(t, err, ErrWrong, "the right one is a new beginning")
}

// However the guesses are spread over addresses and time, an hour never holds more than were
// allowed, and no address waits longer than the longest lock.
func TestGuessesAreFewHoweverTheyAreSpread(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		now := time.Date(2026, 11, 26, 0, 0, 0, 0, time.UTC)
		tr := tries{from: map[netip.Prefix]*wrong{}}
		var guesses []time.Time
		for range 400 {
			from := netip.AddrFrom4([4]byte{10, 0, byte(rapid.IntRange(0, 3).Draw(t, "net")), byte(rapid.IntRange(0, 60).Draw(t, "host"))})
			now = now.Add(time.Duration(rapid.IntRange(0, 90).Draw(t, "s")) * time.Second)
			wait := tr.wait(from, now)
			if wait > longestLock {
				t.Fatalf("waits %s", wait)
			}
			if wait == 0 {
				tr.missed(from, now)
				guesses = append(guesses, now)
			}
		}
		for i := range guesses {
			if i >= mostAnHour && guesses[i].Sub(guesses[i-mostAnHour]) < time.Hour {
				t.Fatalf("%d guesses in %s", mostAnHour+1, guesses[i].Sub(guesses[i-mostAnHour]))
			}
		}
	})
}

func TestAHouseholdOfNewAddressesIsOne(t *testing.T) {
	a, b := netip.MustParseAddr("fd00:1:2:3::1"), netip.MustParseAddr("fd00:1:2:3:ffff::2%eth0")
	assert.Equal(t, NetOf(a), NetOf(b))
	assert.NotEqual(t, NetOf(bowl), NetOf(plate))
	assert.Equal(t, NetOf(bowl), NetOf(netip.MustParseAddr("::ffff:192.168.1.20")), "an address of the old kind in the new kind's clothes")
	assert.Equal(t, bowl, FromOf("[::ffff:192.168.1.20]:4711"))
}

func TestAPasscodeIsNotOneThatIsGuessedFirst(t *testing.T) {
	for _, bad := range []string{"", "short", "password123", "Pass-Word 123", "12345678", "87654321", "aaaaaaaaaa", "ababababab", "qwertyui", "UpbeatLadle1", "abcdefgh", strings.Repeat("long", 40), "\xff\xfe is not text", "halyardhatch", "Halyard-Hatch 1", "hatch halyard hatch", "marlboro", "corvette", "13051990"} {
		assert.Error(t, fit(bad, "Halyard Hatch"), "%q", bad)
	}
	for _, good := range []string{passcode, "three plums in rye", "Ðægréd-þæc", "9fK!2mQz", "朝食のパンケーキは六時"} {
		assert.NoError(t, fit(good, "Halyard Hatch"), "%q", good)
	}
}

func aCard(t *testing.T, st *store.Store) string {
	t.Helper()
	d, err := st.Create(t.Context(), store.Variation, store.Content{Name: "Beetroot", Form: "pancake", Body: []byte(`{}`)}, "")
	require.NoError(t, err)
	return d.ID
}

func TestALinkOpensItsCardUntilItEnds(t *testing.T) {
	h, c, st := open(t)
	ctx := t.Context()
	card := aCard(t, st)
	_, _, err := h.Invite(ctx, "nothing", 1)
	assert.ErrorIs(t, err, store.ErrNotFound)
	token, g, err := h.Invite(ctx, card, 1)
	require.NoError(t, err)
	found, err := h.Guest(ctx, token)
	require.NoError(t, err)
	assert.Equal(t, card, found.Card)
	assert.Equal(t, "Beetroot", found.Name)
	_, err = h.Who(ctx, token)
	assert.ErrorIs(t, err, ErrOutside, "a guest's link is no tablet's")
	other, _, err := h.Invite(ctx, card, 2)
	require.NoError(t, err)
	require.NoError(t, h.TakeBack(ctx, g.ID))
	_, err = h.Guest(ctx, token)
	assert.ErrorIs(t, err, store.ErrNotFound)
	c.pass(48 * time.Hour)
	_, err = h.Guest(ctx, other)
	assert.ErrorIs(t, err, store.ErrNotFound, "its days are over")
}

// The chain is checked by Go's own verifier, as a browser checks it.
func TestTheCertificateSpeaksForTheHouseOnly(t *testing.T) {
	c := &clock{time.Date(2026, 11, 26, 6, 0, 0, 0, time.UTC)}
	dir := filepath.Join(t.TempDir(), "kitchen-house")
	own, err := OpenCertificate(dir, []string{"kitchen.home.arpa"}, []string{"hatch", "hatch.local"}, c.now)
	require.NoError(t, err)
	own.where = func() ([]net.IP, error) {
		return []net.IP{net.IPv4(192, 168, 1, 5), net.IPv4(203, 0, 113, 9), net.IPv6loopback}, nil
	}
	c.pass(lookAgain)
	pair, err := own.Get(nil)
	require.NoError(t, err)
	roots := x509.NewCertPool()
	root, err := x509.ParseCertificate(own.Root())
	require.NoError(t, err)
	roots.AddCert(root)
	check := func(leaf *x509.Certificate, name string) error {
		_, err := leaf.Verify(x509.VerifyOptions{DNSName: name, Roots: roots, CurrentTime: c.now()})
		return err
	}
	for _, name := range []string{"192.168.1.5", "::1", "localhost", "hatch.local", "kitchen.home.arpa"} {
		assert.NoError(t, check(pair.Leaf, name), name)
	}
	for _, name := range []string{"203.0.113.9", "192.168.1.6", "bank.example.com"} {
		assert.Error(t, check(pair.Leaf, name), name)
	}
	// A root that got lost cannot speak for anything outside a house.
	own.names = []string{"bank.example.com"}
	stolen, err := own.makeLeaf([]net.IP{net.IPv4(203, 0, 113, 9)}, c.now())
	require.NoError(t, err)
	assert.NotContains(t, stolen.Leaf.DNSNames, "bank.example.com")
	assert.Empty(t, stolen.Leaf.IPAddresses)
	own.root.PermittedDNSDomains, own.root.PermittedIPRanges = []string{"bank.example.com"}, nil
	stolen, err = own.makeLeaf(nil, c.now())
	require.NoError(t, err)
	var named x509.CertificateInvalidError
	require.ErrorAs(t, check(stolen.Leaf, "bank.example.com"), &named)
	assert.Equal(t, x509.CANotAuthorizedForThisName, named.Reason, "the limit stands in the root that the tablet trusts")

	again, err := OpenCertificate(dir, nil, []string{"another-name-by-now"}, c.now)
	require.NoError(t, err)
	assert.Equal(t, own.Fingerprint(), again.Fingerprint(), "tablets trust it once")
	_, err = OpenCertificate(dir, []string{"cafe.example.org"}, nil, c.now)
	assert.ErrorContains(t, err, "cafe.example.org")
	info, err := os.Stat(filepath.Join(dir, "root.key"))
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	// Another address, and a year: what is shown is made anew, under the same root.
	again.where = func() ([]net.IP, error) { return []net.IP{net.IPv4(10, 0, 0, 7)}, nil }
	c.pass(lookAgain)
	pair, err = again.Get(nil)
	require.NoError(t, err)
	assert.NoError(t, check(pair.Leaf, "10.0.0.7"))
	c.pass(leafFor)
	pair, err = again.Get(nil)
	require.NoError(t, err)
	assert.NoError(t, check(pair.Leaf, "10.0.0.7"), "a year later")
	c.pass(rootFor)
	_, err = OpenCertificate(dir, nil, nil, c.now)
	assert.ErrorContains(t, err, "ended on")
}

func TestADamagedCertificateIsToldNotReplaced(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "kitchen-house")
	_, err := OpenCertificate(dir, nil, nil, time.Now)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(dir, "root.crt"), []byte("not any more"), 0o600))
	_, err = OpenCertificate(dir, nil, nil, time.Now)
	assert.ErrorContains(t, err, dir)
}

func lines(t *testing.T, wrap func(net.Listener) net.Listener) net.Listener {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	l = wrap(l)
	t.Cleanup(func() { _ = l.Close() })
	return l
}

// callers dials a listener from addresses of this machine, and says how many lines each of them was given.
type callers struct {
	t  *testing.T
	to string
}

func (c callers) dial(from string) net.Conn {
	c.t.Helper()
	d := net.Dialer{LocalAddr: &net.TCPAddr{IP: net.ParseIP(from)}}
	conn, err := d.Dial("tcp", c.to)
	require.NoError(c.t, err)
	c.t.Cleanup(func() { _ = conn.Close() })
	return conn
}

// greeted tells whether a line is open: the other end greets.
func greeted(conn net.Conn) bool {
	_ = conn.SetReadDeadline(time.Now().Add(10 * time.Second))
	_, err := io.ReadFull(conn, make([]byte, 1))
	return err == nil
}

// holds dials until a line is closed at once, so many times at most.
func (c callers) holds(from string, most int) (n int) {
	for n < most && greeted(c.dial(from)) {
		n++
	}
	return n
}

// A few strangers cannot have all the lines: what is left is shared, and some are kept for where tablets are in.
func TestStrangersShareTheLines(t *testing.T) {
	home := netip.MustParseAddr("127.0.0.9")
	l := lines(t, func(l net.Listener) net.Listener {
		return Capped(l, func(from netip.Addr) bool { return from == home })
	})
	accepted := make(chan net.Conn, 2*mostLines)
	go func() {
		for {
			c, err := l.Accept()
			if err != nil {
				return
			}
			_, _ = c.Write([]byte("h"))
			accepted <- c
		}
	}()
	c := callers{t, l.Addr().String()}
	sum := 0
	for i := range 8 {
		n := c.holds(fmt.Sprintf("127.0.0.%d", 20+i), 40)
		assert.LessOrEqual(t, n, mostLinesEach)
		assert.GreaterOrEqual(t, n, leastShare)
		sum += n
	}
	assert.Less(t, sum, mostStrangers)
	assert.GreaterOrEqual(t, c.holds("127.0.0.30", leastShare), leastShare, "one who comes later still gets a page")
	for i := range 60 { // however many they are
		sum += c.holds(fmt.Sprintf("127.0.0.%d", 100+i), 40)
	}
	assert.Equal(t, mostLinesEach, c.holds(home.String(), 40), "a known tablet has its lines whatever strangers hold")
	first := <-accepted
	require.NoError(t, first.Close())
	require.Error(t, first.Close(), "closing twice counts once")
	assert.True(t, greeted(c.dial("127.0.1.1")), "what is closed is free again")
}

// pipes is a listener of lines in the memory.
type pipes chan net.Conn

func (p pipes) Accept() (net.Conn, error) {
	c, ok := <-p
	if !ok {
		return nil, net.ErrClosed
	}
	return c, nil
}
func (p pipes) Close() error   { return nil }
func (p pipes) Addr() net.Addr { return &net.TCPAddr{} }

// A stranger's line on which nothing happens is closed; one that is used, or whose tablet came in, is not.
func TestAStrangerWhoSaysNothingIsNotWaitedFor(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		var came atomic.Bool
		p := make(pipes, 1)
		l := Capped(p, func(netip.Addr) bool { return came.Load() })
		call := func() (far net.Conn, gone chan error) {
			far, near := net.Pipe()
			p <- near
			c, err := l.Accept()
			require.NoError(t, err)
			gone = make(chan error, 1)
			go func() {
				for {
					if _, err := c.Read(make([]byte, 1)); err != nil {
						gone <- err
						return
					}
				}
			}()
			return far, gone
		}
		silent, silentGone := call()
		busy, busyGone := call()
		for range 4 {
			time.Sleep(strangerIdle / 2) // of the bubble's own time
			_, err := busy.Write([]byte("x"))
			require.NoError(t, err)
			synctest.Wait()
		}
		assert.Error(t, <-silentGone)
		_ = silent.Close()
		assert.Empty(t, busyGone, "one that is used stays")
		came.Store(true)
		time.Sleep(10 * strangerIdle)
		synctest.Wait()
		assert.Empty(t, busyGone, "whose tablet came in stays")
		_ = busy.Close()
	})
}

// However many wrong passcodes strangers give: who is in, or comes from where a tablet is in, is not locked out.
func TestStrangersDoNotLockTheHouse(t *testing.T) {
	h, c, _ := open(t)
	ctx := t.Context()
	_, tablet := in(t, h, plate, "the plate's")
	stranger := func(i int) netip.Addr { return netip.AddrFrom4([4]byte{10, 9, byte(i / 250), byte(i % 250)}) }
	for i := range mostAnHour + 20 {
		_, _, err := h.SignIn(ctx, stranger(i), "wrong", "")
		require.Error(t, err)
	}
	var locked *LockedError
	_, _, err := h.SignIn(ctx, bowl, passcode, "")
	assert.ErrorAs(t, err, &locked, "from where nobody is known there is a wait")
	_, _, err = h.SignIn(ctx, plate, "wrong", "")
	assert.ErrorIs(t, err, ErrWrong)
	in(t, h, plate, "another tablet there")
	assert.NoError(t, h.Change(ctx, stranger(3), tablet.ID, passcode, "three plums in rye", "Halyard Hatch"), "who is in may set another from anywhere")
	c.pass(idleFor)
	assert.False(t, h.Knows(plate), "an address is not known for ever")
}

// Who speaks TLS and who does not each meet their own, on one port, and no byte is lost.
func TestCallsAreSortedByTheirFirstByte(t *testing.T) {
	own, err := OpenCertificate(filepath.Join(t.TempDir(), "kitchen-house"), nil, nil, time.Now)
	require.NoError(t, err)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	secure, plain := Split(l)
	echo := func(l net.Listener) {
		for {
			c, err := l.Accept()
			if err != nil {
				return
			}
			go func() { _, _ = io.Copy(c, c); _ = c.Close() }()
		}
	}
	go echo(tls.NewListener(secure, &tls.Config{GetCertificate: own.Get}))
	go echo(plain)
	roots := x509.NewCertPool()
	root, err := x509.ParseCertificate(own.Root())
	require.NoError(t, err)
	roots.AddCert(root)
	silent, err := net.Dial("tcp", l.Addr().String()) // who says nothing keeps nobody waiting
	require.NoError(t, err)
	defer silent.Close()
	for i := range 20 {
		said := fmt.Sprintf("GET %d", i)
		for _, dial := range []func() (net.Conn, error){
			func() (net.Conn, error) { return net.Dial("tcp", l.Addr().String()) },
			func() (net.Conn, error) { return tls.Dial("tcp", l.Addr().String(), &tls.Config{RootCAs: roots}) },
		} {
			c, err := dial()
			require.NoError(t, err)
			_, err = c.Write([]byte(said))
			require.NoError(t, err)
			heard := make([]byte, len(said))
			_, err = io.ReadFull(c, heard)
			require.NoError(t, err)
			assert.Equal(t, said, string(heard))
			_ = c.Close()
		}
	}
	require.NoError(t, plain.Close())
	_, err = secure.Accept()
	assert.ErrorIs(t, err, net.ErrClosed)
	assert.NoError(t, secure.Close())
}

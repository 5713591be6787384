package house

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"
)

// Life of the certificates (modelling choices; browsers take at most 825 days from a root that
// was put there by hand, from memory).
const (
	rootFor   = 10 * 365 * 24 * time.Hour
	leafFor   = 397 * 24 * time.Hour
	renewWith = 30 * 24 * time.Hour // left
	lookAgain = time.Minute         // whether the machine has another address
)

// private are the only addresses that the root may speak for: those of a house (RFC 1918, 3927,
// 4193, 4291, 6598) and of the machine itself. A root that got lost opens nothing else.
var private = []string{
	"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "100.64.0.0/10", "127.0.0.0/8",
	"fc00::/7", "fe80::/10", "::1/128",
}

// local are the names that it may speak for besides those that are configured: those that no
// public name ends in (RFC 6761, 6762, 8375).
var local = []string{"localhost", "local", "home.arpa", "lan", "internal"}

// Certificate is the house's own: a root that a tablet trusts once, and what the program shows
// at each call, made anew when it gets old or the machine has another address.
type Certificate struct {
	dir   string
	names []string
	now   func() time.Time
	where func() ([]net.IP, error)

	root    *x509.Certificate
	rootKey *ecdsa.PrivateKey

	mu     sync.Mutex
	leaf   *tls.Certificate
	looked time.Time
}

// OpenCertificate reads the house's certificate from a folder, and makes it when there is none.
// The names are those that tablets call the machine by, which it must speak for; its own name
// may have changed since.
func OpenCertificate(dir string, names, own []string, now func() time.Time) (*Certificate, error) {
	c := &Certificate{dir: dir, names: slices.Concat(names, own), now: now, where: addresses}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("making the folder of the certificate: %w", err)
	}
	var err error
	c.root, c.rootKey, err = readPair(c.path("root.crt"), c.path("root.key"))
	if errors.Is(err, fs.ErrNotExist) {
		err = c.makeRoot()
	}
	if err != nil {
		return nil, fmt.Errorf("the house's certificate in %s: %w", dir, err)
	}
	if !now().Before(c.root.NotAfter) {
		return nil, fmt.Errorf("the house's certificate ended on %s: take %s away to make another, which the tablets then trust once more", c.root.NotAfter.Format(time.DateOnly), dir)
	}
	for _, n := range names {
		if !permitted(c.root, n) {
			return nil, fmt.Errorf("the house's certificate was made without the name %q: take %s away to make another, which the tablets then trust once more", n, dir)
		}
	}
	_, err = c.Get(nil)
	return c, err
}

func (c *Certificate) path(name string) string { return filepath.Join(c.dir, name) }

// Root is what a tablet has to trust, in DER.
func (c *Certificate) Root() []byte { return c.root.Raw }

// Fingerprint is the root's SHA-256, in pairs, as devices show it.
func (c *Certificate) Fingerprint() string {
	sum := sha256.Sum256(c.root.Raw)
	pairs := make([]string, len(sum))
	for i, b := range sum {
		pairs[i] = fmt.Sprintf("%02X", b)
	}
	return strings.Join(pairs, " ")
}

// TLS is how the program talks: TLS 1.2 at least, and with what authenticates what it encrypts (RFC 7465 and 8446: no block ciphers in
// CBC mode).
func TLS() *tls.Config {
	c := &tls.Config{MinVersion: tls.VersionTLS12}
	for _, s := range tls.CipherSuites() {
		if !strings.Contains(s.Name, "_CBC_") && slices.Contains(s.SupportedVersions, tls.VersionTLS12) {
			c.CipherSuites = append(c.CipherSuites, s.ID)
		}
	}
	return c
}

// Get is what the program shows to who calls; for tls.Config.GetCertificate.
func (c *Certificate) Get(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	c.mu.Lock()
	defer c.mu.Unlock()
	now := c.now()
	if c.leaf != nil && now.Sub(c.looked) < lookAgain {
		return c.leaf, nil
	}
	ips, err := c.where()
	if err != nil {
		return nil, err
	}
	c.looked = now
	if c.leaf != nil && now.Add(renewWith).Before(c.leaf.Leaf.NotAfter) && covers(c.leaf.Leaf, ips) {
		return c.leaf, nil
	}
	c.leaf, err = c.makeLeaf(ips, now)
	return c.leaf, err
}

func (c *Certificate) makeRoot() error {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return err
	}
	now := c.now()
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: "Upbeat Ladle, this kitchen, " + now.Format(time.DateOnly)},
		NotBefore: now.Add(-time.Hour), NotAfter: now.Add(rootFor),
		IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true, KeyUsage: x509.KeyUsageCertSign,
		PermittedDNSDomainsCritical: true, PermittedDNSDomains: append(slices.Clone(local), c.names...),
	}
	for _, p := range private {
		_, n, err := net.ParseCIDR(p)
		if err != nil {
			return err
		}
		t.PermittedIPRanges = append(t.PermittedIPRanges, n)
	}
	der, err := x509.CreateCertificate(rand.Reader, t, t, key.Public(), key)
	if err != nil {
		return err
	}
	secret, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return err
	}
	// The key first: a certificate without its key would be taken for a whole pair.
	if err := write(c.path("root.key"), "PRIVATE KEY", secret); err != nil {
		return err
	}
	if err := write(c.path("root.crt"), "CERTIFICATE", der); err != nil {
		return err
	}
	c.root, c.rootKey, err = readPair(c.path("root.crt"), c.path("root.key"))
	return err
}

// makeLeaf signs for the machine's names and addresses of today; it is kept in memory only.
func (c *Certificate) makeLeaf(ips []net.IP, now time.Time) (*tls.Certificate, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	until := now.Add(leafFor)
	if c.root.NotAfter.Before(until) {
		until = c.root.NotAfter
	}
	t := &x509.Certificate{
		SerialNumber: serial(), Subject: pkix.Name{CommonName: "Upbeat Ladle"}, NotBefore: now.Add(-time.Hour), NotAfter: until,
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
		IPAddresses: slices.DeleteFunc(slices.Clone(ips), func(ip net.IP) bool { return !speaksFor(c.root, ip) }),
	}
	for _, n := range append([]string{"localhost"}, c.names...) {
		if permitted(c.root, n) {
			t.DNSNames = append(t.DNSNames, n)
		}
	}
	der, err := x509.CreateCertificate(rand.Reader, t, c.root, key.Public(), c.rootKey)
	if err != nil {
		return nil, err
	}
	leaf, err := x509.ParseCertificate(der)
	if err != nil {
		return nil, err
	}
	return &tls.Certificate{Certificate: [][]byte{der, c.root.Raw}, PrivateKey: key, Leaf: leaf}, nil
}

// SpeaksFor tells whether the house's certificate may speak for an address: those of a house only.
func SpeaksFor(ip net.IP) bool { return isPrivate(ip) }

// covers tells whether a certificate speaks for every address that its root may.
func covers(leaf *x509.Certificate, ips []net.IP) bool {
	for _, ip := range ips {
		if !slices.ContainsFunc(leaf.IPAddresses, ip.Equal) && isPrivate(ip) {
			return false
		}
	}
	return true
}

func isPrivate(ip net.IP) bool {
	return slices.ContainsFunc(private, func(p string) bool { _, n, _ := net.ParseCIDR(p); return n.Contains(ip) })
}

func speaksFor(root *x509.Certificate, ip net.IP) bool {
	return slices.ContainsFunc(root.PermittedIPRanges, func(n *net.IPNet) bool { return n.Contains(ip) })
}

func permitted(root *x509.Certificate, name string) bool {
	return slices.ContainsFunc(root.PermittedDNSDomains, func(d string) bool { return name == d || strings.HasSuffix(name, "."+d) })
}

func serial() *big.Int {
	n, _ := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 127)) // never fails
	return n.Add(n, big.NewInt(1))
}

// addresses are those that the machine has now.
func addresses() ([]net.IP, error) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil, fmt.Errorf("looking for this machine's addresses: %w", err)
	}
	var out []net.IP
	for _, a := range all {
		if n, ok := a.(*net.IPNet); ok {
			out = append(out, n.IP)
		}
	}
	return out, nil
}

// Addresses are those that a tablet in the house may reach the machine by, the old kind first.
func Addresses() ([]net.IP, error) {
	all, err := addresses()
	if err != nil {
		return nil, err
	}
	all = slices.DeleteFunc(all, func(ip net.IP) bool { return ip.IsLoopback() || ip.IsLinkLocalUnicast() })
	slices.SortStableFunc(all, func(a, b net.IP) int {
		if (a.To4() != nil) == (b.To4() != nil) {
			return 0
		}
		if a.To4() != nil {
			return -1
		}
		return 1
	})
	return all, nil
}

func readPair(crt, key string) (*x509.Certificate, *ecdsa.PrivateKey, error) {
	pair, err := tls.LoadX509KeyPair(crt, key)
	if err != nil {
		return nil, nil, err
	}
	secret, ok := pair.PrivateKey.(*ecdsa.PrivateKey)
	if !ok || !pair.Leaf.IsCA {
		return nil, nil, errors.New("it is not one that this program made")
	}
	return pair.Leaf, secret, nil
}

// write keeps a block of PEM whole or not at all, for whoever runs the program only.
func write(path, kind string, der []byte) error {
	f, err := os.CreateTemp(filepath.Dir(path), ".part-")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name()) //nolint:errcheck // gone once it is renamed
	err = pem.Encode(f, &pem.Block{Type: kind, Bytes: der})
	if err = errors.Join(err, f.Sync(), f.Close()); err != nil {
		return err
	}
	return os.Rename(f.Name(), path)
}

package main

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The committed schemas are those of the contract; `make generate` refreshes them.
func TestSchemasAreCurrent(t *testing.T) {
	files, err := build("../openapi.yaml")
	require.NoError(t, err)
	for name, want := range files {
		got, err := os.ReadFile("../../docs/formats/" + name)
		require.NoError(t, err)
		assert.JSONEq(t, string(want), string(got), "%s: run make generate", name)
	}
}

module cuestart

go 1.26.0

require (
	github.com/stretchr/testify v1.12.1
	pgregory.net/rapid v1.3.0
)

require go.yaml.in/yaml/v3 v3.0.6 // indirect

$env:NESTING_PROJECT = Split-Path -Parent $PSScriptRoot
$env:NESTING_CUTS_MOON = [IO.Path]::Combine($env:NESTING_PROJECT, '20-cutting\moon')
$env:NESTING_CUTS_HERON = [IO.Path]::Combine($env:NESTING_PROJECT, '20-cutting\heron')
$env:NESTING_CUTS_HARE = [IO.Path]::Combine($env:NESTING_PROJECT, '20-cutting\hare')

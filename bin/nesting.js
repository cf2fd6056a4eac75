#!/usr/bin/env node
import '../dist/nesting.js';

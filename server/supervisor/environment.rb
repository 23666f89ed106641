# frozen_string_literal: true

module Supervisor
  ROOT = File.expand_path("../..", __dir__)

  # What every process of ours is given. glibc hands memory of more than 128 kB
  # back at once by default, and more slowly from threads' own arenas; tiles and
  # frames are as large and wanted again at once. Frames larger than UHD are handed back. Frames that lived through a
  # collection would have Ruby mark its whole heap, some 50 ms, at every picture.
  ENVIRONMENT = {
    "BUNDLE_GEMFILE" => File.join(ROOT, "Gemfile"), "BUNDLE_PATH" => File.join(ROOT, "vendor/bundle"),
    "MALLOC_MMAP_THRESHOLD_" => (128 * 1024 * 1024).to_s, "MALLOC_TRIM_THRESHOLD_" => (512 * 1024 * 1024).to_s,
    "MALLOC_ARENA_MAX" => "1", "VIPS_WARNING" => "1",
    "RUBY_GC_OLDMALLOC_LIMIT" => (128 * 1024 * 1024).to_s, "RUBY_GC_OLDMALLOC_LIMIT_MAX" => (256 * 1024 * 1024).to_s
  }.freeze

  # What web processes are given besides. Ruby's own compiler, where this Ruby has it, takes an eighth off a drag, which is many small
  # steps. It would fill all room it is given at once, 256 MB a process; some 5 are used.
  COMPILED = (defined?(RubyVM::YJIT) ? {"RUBYOPT" => "--yjit-exec-mem-size=32"} : {}).freeze
end

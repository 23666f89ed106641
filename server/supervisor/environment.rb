# frozen_string_literal: true

module Supervisor
  ROOT = File.expand_path("../..", __dir__)

  # What every process of ours is given. glibc hands memory of more than 128 kB
  # back at once by default; tiles and frames are as large and wanted again at once.
  ENVIRONMENT = {
    "BUNDLE_GEMFILE" => File.join(ROOT, "Gemfile"), "BUNDLE_PATH" => File.join(ROOT, "vendor/bundle"),
    "MALLOC_MMAP_THRESHOLD_" => (256 * 1024 * 1024).to_s, "MALLOC_TRIM_THRESHOLD_" => (512 * 1024 * 1024).to_s,
    "MALLOC_ARENA_MAX" => "2", "VIPS_WARNING" => "1"
  }.freeze
end

# frozen_string_literal: true

require "json"
require "optparse"
require "numo/narray"
require "zeitwerk"

# The computation behind the application: pixels, colour, steps, plans, scopes,
# media and delivery. Plain Ruby: it knows nothing of HTTP, the database or the
# browser.
module Mordant
  # Goes up when the same recipe on the same footage makes another picture than before.
  ENGINE = 10

  # Raised when what is read of files changes; decoded frames and working copies go by it.
  DECODING = 3
  LOADER = Zeitwerk::Loader.new
  LOADER.push_dir(__dir__)
  LOADER.inflector.inflect(
    "ictcp" => "ICtCp", "aces" => "ACES", "pq" => "PQ", "hlg" => "HLG", "edl" => "EDL", "exr" => "EXR",
    "v_log" => "VLog", "s_rgb" => "SRGB", "s_rgb_published" => "SRGBPublished", "bt709" => "BT709", "cdl" => "CDL", "cdl_document" => "CDLDocument",
    "edl_corrections" => "EDLCorrections", "edl_reading" => "EDLReading", "cdl_export" => "CDLExport"
  )
  LOADER.ignore(File.join(__dir__, "mordant/vips.rb")) # which is libvips' own
  LOADER.setup
  @whole = [] # folders that have been loaded

  # Loads what is in a folder, where classes are found by what they descend from: once, as it takes longer than to read a recipe.
  #
  # @param folder [String]
  def self.load_folder(folder)
    return if @whole.include?(folder)

    LOADER.eager_load_dir(folder)
    @whole += [folder] # only now: whoever asks meanwhile waits for it as well
  end
end

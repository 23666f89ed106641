# frozen_string_literal: true

module Mordant
  module Deliver
    # Orders to start from: what is written, of the whole cut or each shot by itself.
    module Presets
      TELEVISION = {"encoding" => "rec709-bt1886", "rendering" => "sdr-video-1.0"}.freeze
      CINEMA = {"encoding" => "dcdm-xyz", "rendering" => "sdr-cinema-1.0"}.freeze
      HDR = {"encoding" => "rec2100-pq", "rendering" => "hdr-video-1000nit-15nit-rec2020lim-1.1"}.freeze
      LIGHT = {"encoding" => "aces2065-1"}.freeze

      Preset = Struct.new(:id, :label, :about, :per_shot, :handles, :template, :outputs, keyword_init: true)

      ALL = [
        Preset.new(id: "dailies", label: "Dailies", about: "each shot with source timecode, reel and names drawn in", per_shot: true, handles: 0, template: "{project}/dailies/{reel}/{clip}",
          outputs: [{"format" => "h264-8", "view" => TELEVISION, "burns" => BurnIn::PRESETS.fetch("source and record") + BurnIn::PRESETS.fetch("slate line").first(1)}]),
        Preset.new(id: "review", label: "Review copy", about: "the cut as it is seen, to be passed round", per_shot: false, handles: 0, template: "{project}/review/{cut}_{date}",
          outputs: [{"format" => "h264", "view" => TELEVISION}]),
        Preset.new(id: "television", label: "Television master", about: "VC-3 with a review copy, from one pass", per_shot: false, handles: 0, template: "{project}/television/{cut}_{format}",
          outputs: [{"format" => "vc3-mxf", "view" => TELEVISION, "range" => "legal"}, {"format" => "h264", "view" => TELEVISION}]),
        Preset.new(id: "cinema", label: "Cinema sequence", about: "X'Y'Z' in 16-bit TIFF", per_shot: false, handles: 0, template: "{project}/cinema/{cut}_xyz",
          outputs: [{"format" => "tiff-16", "view" => CINEMA}]),
        Preset.new(id: "hdr", label: "HDR master", about: "PQ in 16-bit TIFF, and HDR10 with its light levels", per_shot: false, handles: 0, template: "{project}/hdr/{cut}_{format}",
          outputs: [{"format" => "tiff-16", "view" => HDR}, {"format" => "hdr10", "view" => HDR}]),
        Preset.new(id: "plates", label: "Effects plates", about: "ungraded scene light of each shot, with handles", per_shot: true, handles: 8, template: "{project}/plates/{shot}/{shot}_{clip}",
          outputs: [{"format" => "exr-half", "view" => LIGHT, "graded" => false}]),
        Preset.new(id: "archive", label: "Archive", about: "ACES image containers, graded, and FFV1 without loss", per_shot: false, handles: 0, template: "{project}/archive/{cut}_{format}",
          outputs: [{"format" => "exr-half", "view" => LIGHT, "options" => {"compression" => "none"}}, {"format" => "ffv1", "view" => TELEVISION}])
      ].freeze
    end
  end
end

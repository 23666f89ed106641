# frozen_string_literal: true

module Server
  # A cut as a list of its sources, as it is written.
  class CutList
    # @param cut [Cut]
    def initialize(cut)
      @cut = cut
    end

    # @param cdls [Hash{Shot => Mordant::Colour::CDL}] that go along
    # @return [Array<Mordant::Cut::Written>]
    def shots(cdls = {})
      @cut.loaded_shots.map do |shot|
        clip = shot.clip
        Mordant::Cut::Written.new(reel: clip.reel || clip.camera, name: File.basename(clip.path), url: CutList.url(clip.path), source_in: clip.timecode(shot.source_in).at(rate), available: (available(clip) unless clip.placeholder?),
          length: shot.length, record_in: @cut.timecode(shot.record_in), speed: shot.speed, dissolve: shot.dissolve, wipe: shot.wipe, black: clip.black?, cdl: cdls[shot], metadata: {"mordant" => {"shot" => shot.name}})
      end
    end

    # @return [String] CMX 3600
    def edl(cdls = {}) = Mordant::Cut::EDL.write(CutList.title(@cut), shots(cdls))

    # @return [String] OpenTimelineIO
    def otio = Mordant::Cut::OpenTimeline.write(shots, name: @cut.name)

    def self.title(cut) = "#{cut.project.name} #{cut.name}".upcase

    # @param path [String] relative
    def self.url(path) = path.split("/").map { |part| URI.encode_www_form_component(part).gsub("+", "%20") }.join("/")

    private

    def available(clip) = [clip.timecode(0).at(rate), clip.frames]

    def rate = @cut.project.rate
  end
end

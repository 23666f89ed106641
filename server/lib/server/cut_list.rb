# frozen_string_literal: true

module Server
  # A cut as events of an edit decision list.
  class CutList
    # @param cut [Cut]
    # @param names [Hash{Integer => String}] of clips by the id of their shot; else those of the sources
    def initialize(cut, names: {})
      @cut, @names = cut, names
    end

    # @param cdls [Hash{Shot => Mordant::Colour::CDL}] that go along
    # @return [Array<Mordant::Cut::EDL::Event>]
    def events(cdls = {})
      before = nil
      @cut.loaded_shots.map { |shot| before = event(shot, before, cdls[shot]) }
    end

    private

    def event(shot, before, cdl)
      first = shot.clip.timecode(shot.source_in).at(rate)
      record = @cut.timecode(shot.record_in)
      Mordant::Cut::EDL::Event.new(reel: shot.clip.reel || shot.clip.camera, source_in: first, source_out: first + shot.length, record_in: record,
        record_out: record + shot.length, clip_name: @names.fetch(shot.id) { File.basename(shot.clip.path) }, dissolve: shot.dissolve, before:, cdl:)
    end

    def rate = @cut.project.rate
  end
end

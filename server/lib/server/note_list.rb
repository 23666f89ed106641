# frozen_string_literal: true

module Server
  # The notes of a cut to take away: as text, or as markers of an OpenTimelineIO timeline.
  class NoteList
    # @param cut [Cut]
    def initialize(cut)
      @cut = cut
      @notes = Note.shown(cut)
    end

    # @return [String] a line with timecode, shot and name, then what was said
    def text
      head = "#{@cut.project.name}, #{@cut.name}: #{@notes.size} #{(@notes.size == 1) ? "note" : "notes"}\n"
      head + @notes.map { |note| "\n#{note[:timecode]}  #{name_of(note)}  #{note[:by]}#{" (closed)" if note[:closed]}\n#{said(note)}" }.join
    end

    # @return [String] JSON; each note is a marker of the shot it is about
    def otio
      written = CutList.new(@cut).shots
      @notes.group_by { |note| @cut.shot(note[:shot]) }.except(nil).each do |shot, notes|
        written[@cut.loaded_shots.index(shot)].markers = notes.map { |note| Mordant::Cut::Written::Marker.new(offset: note[:frame] - shot.record_in, name: note[:by], words: plain(note), metadata: {"closed" => note[:closed], **(note[:mark] ? {"mark" => note[:mark]} : {})}) }
      end
      Mordant::Cut::OpenTimeline.write(written, name: @cut.name)
    end

    private

    def name_of(note) = @cut.shot(note[:shot])&.name || "shot that has gone"

    def said(note) = plain(note).lines.map { |line| "  #{line.chomp}\n" }.join

    def plain(note) = [note[:words], *note[:answers].map { |answer| "#{answer[:by]}: #{answer[:words]}" }].join("\n")
  end
end

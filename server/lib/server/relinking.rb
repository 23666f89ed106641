# frozen_string_literal: true

module Server
  # Finds the clips that events of a list are of among all that a project has taken in; see Mordant::Cut::Relink.
  class Relinking
    # clip: nil where none or several fit; first: its frame at the event's source in, as shots count it; candidates: Clips.
    Found = Struct.new(:clip, :first, :rule, :candidates, :reason, keyword_init: true)

    # @param project [Project]
    # @param links [Hash{Integer => Integer}] number of an event to the id of a clip, as a person chose
    # @param prefer [String, nil] beginning of the path of clips that win where several fit
    # @raise [Mordant::ParameterError] of a clip that is not there
    def initialize(project, links: {}, prefer: nil)
      @project, @links, @prefer = project, links, prefer.to_s
      @clips = project.clips.ready.includes(:media_root).order(:path).each { |clip| clip.association(:project).target = project }.to_a
      @footage = @clips.to_h { |clip| [footage(clip), clip] }.compare_by_identity
      @relink = Mordant::Cut::Relink.new(@footage.keys)
      @slates = project.clips.where(status: "missing").where.not(filled_by_id: nil).includes(:filled_by).index_by { |slate| [slate.reel, slate.path] }
    end

    # @param event [Mordant::Cut::List::Event]
    # @return [Found]
    def link(event)
      return by_hand(event, chosen(@links[event.number])) if @links[event.number]

      link = @relink.link(event)
      return Found.new(clip: clip(link.footage), first: counted(clip(link.footage), link.source_in), rule: link.rule, candidates: []) if link.footage

      candidates = link.candidates.map { |one| clip(one) }
      wanted = @prefer.empty? ? [] : candidates.select { |one| one.path.start_with?(@prefer) }
      return by_hand(event, wanted.first, rule: "from #{@prefer}") if wanted.one?

      said_before(event) || Found.new(candidates:, reason: link.reason)
    end

    # @return [Clip]
    def chosen(id) = @clips.find { |clip| clip.id == id } || raise(Mordant::ParameterError.new(path: "links", expected: "a clip that was taken in", found: id))

    private

    def clip(footage) = @footage.fetch(footage)

    # What a person, or a rule, has said of the same reel and name in another list.
    def said_before(event)
      slate = @slates[[event.reel, Conforming.missing_name(event)]] or return
      first = Slates.taken(slate.tap { |one| one.association(:project).target = @project }, event.source_in.frames)
      Found.new(clip: slate.filled_by, first:, rule: slate.filled_rule, candidates: []) if first >= 0 && first + event.length <= slate.filled_by.frames
    end

    # By its timecode where it has the event's frames, else from its first frame.
    def by_hand(event, clip, rule: Slates::BY_HAND)
      first = counted(clip, event.source_in.at(clip.rate).frames - clip.start_frames)
      span = (event.source_out.frames - event.source_in.frames).abs
      Found.new(clip:, first: (first >= 0 && first + span <= clip.frames) ? first : 0, rule:, candidates: [])
    end

    def counted(clip, frame) = Slates.counted(clip, frame)

    def footage(clip)
      path = clip.run? ? File.join(File.dirname(clip.path), clip.stem) : clip.path
      Mordant::Cut::Relink::Footage.new(path:, reel: clip.reel, start: clip.start, frames: clip.file_frames, rate: clip.rate)
    end
  end
end

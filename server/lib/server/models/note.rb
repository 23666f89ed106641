# frozen_string_literal: true

module Server
  # What somebody said about a frame of a cut, with a mark in its picture perhaps; and what was
  # answered. It stays with its shot and source frame when the cut changes.
  class Note < Record
    LONGEST = 2000 # characters
    MOST = 5000 # of a cut
    MARKS = %w[point box line].freeze # a place, an area, from one place to another

    belongs_to :cut
    belongs_to :shot, optional: true
    belongs_to :review, optional: true
    belongs_to :person, optional: true
    belongs_to :answered, class_name: "Server::Note", foreign_key: :answers_id, optional: true
    has_many :answers, class_name: "Server::Note", foreign_key: :answers_id

    # @param values [Hash] frame, record frame; words; mark, or null; answers, id of the note that it answers
    # @param by [String, nil] name of somebody without an account
    # @return [Note]
    # @raise [Mordant::ParameterError, Missing]
    def self.left(cut, values, by: nil, review: nil)
      words = values["words"].to_s.strip
      raise Mordant::ParameterError.new(path: "words", expected: "1 to #{LONGEST} characters", found: values["words"]) unless words.length.between?(1, LONGEST)
      raise Mordant::ParameterError.new(path: "words", expected: "at most #{MOST} notes in a cut", found: MOST + 1) if where(cut:).count >= MOST

      name = Present.person&.name || by.to_s.strip
      raise Mordant::ParameterError.new(path: "by", expected: "your name, at most 60 characters", found: by) unless name.length.between?(1, 60)

      answered = values["answers"] && (where(cut:, answers_id: nil).find_by(id: values["answers"]) || raise(Missing, "there is no note #{values["answers"]} in this cut"))
      common = {cut:, by: name, words:, review:, person: Present.person}
      return create!(**common, answered:, shot_id: answered.shot_id, frame: answered.frame, source: answered.source) if answered

      frame = values["frame"]
      raise Mordant::ParameterError.new(path: "frame", expected: "a frame of the cut", found: frame) unless frame.is_a?(Integer) && (0...cut.timeline.length).cover?(frame)

      layer, = cut.timeline.layers(frame)
      create!(**common, shot_id: layer.shot.key, frame:, source: layer.source_frame, mark: checked_mark(values["mark"]))
    end

    # @param mark [Hash, nil] kind; from and to, places in shares of the picture's width and height
    def self.checked_mark(mark)
      return if mark.nil?

      places = mark.is_a?(Hash) ? mark.values_at("from", "to") : []
      fits = mark.is_a?(Hash) && MARKS.include?(mark["kind"]) && places.all? { |place| place.is_a?(Array) && place.size == 2 && place.all? { |share| share.is_a?(Numeric) && share.to_f.between?(0, 1) } }
      raise Mordant::ParameterError.new(path: "mark", expected: "#{MARKS.join(", ")} with two places, from and to, in shares of the picture", found: mark) unless fits

      mark.slice("kind", "from", "to")
    end
    private_class_method :checked_mark

    # @return [Array<Hash>] notes of a cut where they are now, in order of their frames, with their answers
    def self.shown(cut)
      notes = where(cut:, answers_id: nil).includes(:review, :answers).to_a
      cut.loaded_shots if notes.any?
      notes.sort_by { |note| [note.frame_in(cut), note.id] }.map { |note| note.to_h(cut) }
    end

    # @param cut [Cut] as it is now
    # @return [Integer] record frame; where its shot has gone, or does not show its frame any more, the nearest there is
    def frame_in(cut)
      cut.loaded_shots
      shot = cut.shot(shot_id) or return [frame, cut.timeline.length - 1].min
      return shot.record_in if shot.speed.zero?

      shot.record_in + ((source - shot.source_in - shot.phase) / shot.speed).round.clamp(0, shot.length - 1)
    end

    # Answered and done, or open again.
    #
    # @param closed [Boolean]
    def close(closed) = update!(closed_at: closed ? Time.now : nil)

    def to_h(cut = self.cut)
      at = frame_in(cut)
      {id:, frame: at, timecode: cut.timecode(at).to_s, shot: shot_id, by:, via: review&.name, words:, mark:, at: created_at.iso8601, closed: !closed_at.nil?,
       answers: answers.sort_by(&:id).map { |one| {id: one.id, by: one.by, words: one.words, at: one.created_at.iso8601} }}
    end
  end
end

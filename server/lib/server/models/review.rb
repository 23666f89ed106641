# frozen_string_literal: true

module Server
  # A link to a stretch of a cut for somebody who only looks: plays what workers have rendered, and
  # leaves notes. Who has the link needs no account; it can be ended, or ends by itself.
  class Review < Record
    MOST = 100 # notes by one link
    DAYS = 1..365

    belongs_to :cut
    belongs_to :person, optional: true
    has_many :notes

    # @param values [Hash] name; first and count, record frames, else the whole cut; days until it ends, else never
    # @return [Array(Review, String)] and the secret of its address, which is not kept
    # @raise [Mordant::ParameterError]
    def self.made(cut, values)
      name = values["name"].to_s.strip
      raise Mordant::ParameterError.new(path: "name", expected: "1 to 80 characters", found: values["name"]) unless name.length.between?(1, 80)

      length = cut.timeline.length
      first, count = values.fetch("first", 0), values.fetch("count", length)
      within = [first, count].all?(Integer) && first >= 0 && count.positive? && first + count <= length
      raise Mordant::ParameterError.new(path: "first", expected: "a stretch within the #{length} frames of the cut", found: [first, count]) unless within

      days = values["days"]
      lasts = days.nil? || (days.is_a?(Integer) && DAYS.cover?(days))
      raise Mordant::ParameterError.new(path: "days", expected: "1 to 365, or none", found: days) unless lasts

      secret = SecureRandom.urlsafe_base64(24)
      made = create!(cut:, name:, first:, count:, mark: SignIn.mark_of(secret), person: Present.person, ends_at: days && (Time.now + days * 24 * 3600))
      made.render
      [made, secret]
    end

    # @return [Review] of an address
    # @raise [Missing] of one that is not, or not any more
    def self.opened(secret)
      found = includes(cut: :project).find_by(mark: SignIn.mark_of(secret.to_s))
      raise Missing, "this link has ended, or is none; ask whoever sent it for another" unless found && !found.ended?

      found
    end

    def ended? = !ends_at.nil? && ends_at <= Time.now

    # @return [Range<Integer>] record frames of it that the cut still has
    def frames = first...[first + count, cut.timeline.length].min

    # Frames whose pictures are there; workers make the others, unless they are about something of the cut just now.
    #
    # @return [Array<Integer>]
    def render
      kept = Pictures::Kept.current.frames(wish, frames)
      busy = kept.size == frames.size || RangeRender.exists?(cut:, what: "pictures", status: RangeRender::LIVE)
      RangeRender.order(cut, first: frames.first, count: frames.size, screen: {}) unless busy
      kept
    end

    # @param frame [Integer] record frame
    # @return [String] PNG; made now where no worker has made it yet
    # @raise [Mordant::ParameterError] of a frame beyond the stretch
    def picture(frame)
      raise Mordant::ParameterError.new(path: "frame", expected: "#{frames.first} to #{frames.last}", found: frame) unless frames.cover?(frame)

      Pictures::Kept.current.fetch(wish.with(frame:))
    end

    def to_h = {id:, cut: cut_id, name:, first:, count:, by: person&.name, made: created_at.iso8601, ends: ends_at&.iso8601, ended: ended?, notes: notes.size}

    # What somebody who looks is told: no more of the production than what is to be seen.
    def told
      project = cut.project
      {name:, cut: cut.name, rate: project.rate.to_s, width: project.width, height: project.height, first: frames.first.to_i, count: frames.size, stamp: Pictures::Depends.digest(Pictures::Depends.project(project), cut.loaded_shots.map { |shot| [shot.id, shot.revision, shot.stands] }), start_frames: cut.timecode(0).frames, drop: cut.timecode(0).drop?,
       shots: cut.loaded_shots.select { |shot| shot.record_in < frames.end.to_i && shot.record_in + shot.length > first }.map { |shot| {name: shot.name, first: shot.record_in} },
       notes: Note.shown(cut).select { |note| frames.cover?(note[:frame]) }}
    end

    private

    def wish = Pictures::Wish.new(cut:, screen: Screens.of(cut.project, nil))
  end
end
